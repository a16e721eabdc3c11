import Button from '@mui/material/Button';
import type { Tools } from '~core/mixing/recipe';
import type { BatchLine } from '~core/mixing/batch';

interface Props {
  lines: readonly BatchLine[];
  tools: Tools;
  onTools: (tools: Tools) => void;
}

/** Where nobody has said what the scale or the syringe shows: asked at the card, since an exact one is rare. */
export function ToolsUnsaid({ lines, tools, onTools }: Props) {
  const weighed = tools.scaleStepG === null && tools.spoonStepMl == null && lines.some((l) => l.unit === 'g');
  const poured = tools.liquidStepMl === null && lines.some((l) => l.unit === 'mL' && !l.spooned);
  return (
    <>
      {weighed && (
        <Asked
          text="Reckoned with a scale that shows everything. What are the steps of yours?"
          steps={[1, 0.1, 0.01]}
          unit="g"
          onStep={(scaleStepG) => onTools({ ...tools, scaleStepG })}
        />
      )}
      {poured && (
        <Asked
          text="Reckoned with a syringe that shows everything. What are the steps of yours?"
          steps={[1, 0.5, 0.1]}
          unit="mL"
          onStep={(liquidStepMl) => onTools({ ...tools, liquidStepMl })}
        />
      )}
    </>
  );
}

function Asked({
  text,
  steps,
  unit,
  onStep,
}: {
  text: string;
  steps: readonly number[];
  unit: string;
  onStep: (step: number) => void;
}) {
  return (
    <div className="inline-row small quiet" role="group" aria-label={text}>
      <span>{text}</span>
      {steps.map((s) => (
        <Button key={s} size="small" color="secondary" variant="outlined" onClick={() => onStep(s)}>
          {s} {unit}
        </Button>
      ))}
    </div>
  );
}

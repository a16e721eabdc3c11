import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import { FormProvider } from 'react-hook-form';
import { z } from 'zod';
import { type DoseStep, doseCase, isRight } from '~core/eye/doseIt';
import { formatFigure } from '~core/quantity/format';
import { Field } from '../../form/fields';
import { typedNumber } from '../../form/schemaFields';
import { useTypedForm } from '../../form/useTypedForm';
import { Told } from './Told';
import type { GameProps } from './game';

/** A label, a bucket, a scale: what goes in, step by step. */
export function DoseGame({ seed, level, onAnswered, onNext }: GameProps) {
  const one = useMemo(() => doseCase(seed, level), [seed, level]);
  const [given, setGiven] = useState<readonly number[]>([]);
  const at = given.length;
  const done = at === one.steps.length;
  const right = given.filter((g, i) => isRight(one.steps[i]!, g)).length;
  const answer = (value: number) => {
    const all = [...given, value];
    setGiven(all);
    if (all.length === one.steps.length)
      onAnswered({ right: all.every((g, i) => isRight(one.steps[i]!, g)) });
  };
  return (
    <>
      {one.given.map((line) => (
        <p key={line} style={{ margin: '0.2rem 0' }}>
          {line}
        </p>
      ))}
      <ol className="eye-steps">
        {one.steps.slice(0, at + 1).map((s, i) => (
          <li key={s.asks}>
            <strong>{s.asks}</strong>
            {i < at ? (
              <p className="small" role="status">
                <strong>{isRight(s, given[i]!) ? 'Right' : `Not ${sayGiven(s, given[i]!)}`}.</strong> {s.why}
              </p>
            ) : (
              !done && <AskStep key={i} step={s} onAnswer={answer} />
            )}
          </li>
        ))}
      </ol>
      {done && (
        <Told title={`${right} of ${one.steps.length} steps right.`} onNext={onNext}>
          <p className="small quiet">
            An exercise: at the real bucket the label comes first, and gloves with acids and powders.
          </p>
        </Told>
      )}
    </>
  );
}

const sayGiven = (s: DoseStep, given: number): string =>
  s.kind === 'choice' ? `“${s.options[given]}”` : `${formatFigure(given, 2)} ${s.unit}`;

const Answer = z.object({ answer: typedNumber('A number, such as 2.5.') });

function AskStep({ step, onAnswer }: { step: DoseStep; onAnswer: (value: number) => void }) {
  const { form, onSubmit } = useTypedForm(Answer, { answer: '' }, ({ answer }) => {
    onAnswer(answer);
    return true;
  });
  if (step.kind === 'choice')
    return (
      <div className="eye-answers" role="group" aria-label={step.asks}>
        {step.options.map((o, i) => (
          <Button key={o} variant="outlined" color="secondary" onClick={() => onAnswer(i)}>
            {o}
          </Button>
        ))}
      </div>
    );
  return (
    <FormProvider {...form}>
      <form
        className="inline-row"
        style={{ marginTop: '0.5rem', alignItems: 'flex-start' }}
        noValidate
        onSubmit={onSubmit}
      >
        <Field
          name="answer"
          size="small"
          label={step.unit}
          autoFocus
          slotProps={{ htmlInput: { inputMode: 'decimal', 'aria-label': `${step.asks} In ${step.unit}` } }}
          sx={{ width: 170 }}
        />
        <Button type="submit" variant="contained">
          That much
        </Button>
      </form>
    </FormProvider>
  );
}

import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import { type Stamp, claimCase, stamps } from '~core/eye/judgeClaim';
import { claimVerdictNames } from '~core/verdict/claims';
import { sentenceCase } from '~core/quantity/format';
import { Told } from './Told';
import type { GameProps } from './game';

/** A label's sentence and a finding: which stamp does it get? */
export function ClaimGame({ seed, level, onAnswered, onNext }: GameProps) {
  const one = useMemo(() => claimCase(seed, level), [seed, level]);
  const [given, setGiven] = useState<Stamp | null>(null);
  const judge = (stamp: Stamp) => {
    if (given !== null) return;
    setGiven(stamp);
    onAnswered({ right: stamp === one.truth });
  };
  return (
    <>
      <p className="eye-claim">“{one.claim}”</p>
      <p>{one.found}</p>
      <div className="eye-answers" role="group" aria-label="Your stamp">
        {stamps.map((s) => (
          <Button
            key={s}
            variant={given === s ? 'contained' : 'outlined'}
            color="secondary"
            disabled={given !== null && given !== s}
            aria-pressed={given === s}
            onClick={() => judge(s)}
          >
            {claimVerdictNames[s]}
          </Button>
        ))}
      </div>
      {given && (
        <Told
          title={
            given === one.truth
              ? `${sentenceCase(claimVerdictNames[one.truth])}.`
              : `Not “${claimVerdictNames[given]}”: ${claimVerdictNames[one.truth]}.`
          }
          onNext={onNext}
        >
          <p>{one.why}</p>
          <p className="small quiet">{meanings[one.truth]}</p>
        </Told>
      )}
    </>
  );
}

const meanings: Record<Stamp, string> = {
  borneOut: 'Borne out: the right way, and what was seen reaches the size that is claimed.',
  inPart: 'In part: the right way beyond chance, the size that is claimed not reached by what was seen.',
  notShown: 'Not shown: the interval holds no change at all. That isn’t a sign that there is none.',
  contradicted: 'Contradicted: the whole interval lies the other way.',
};

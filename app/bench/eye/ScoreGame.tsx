import { LeaveGuard } from '../../form/UnsavedGuard';
import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import { agreement, coverScale, sayAgreement, scoringSeries } from '~core/eye/scoreTwice';
import { Told } from './Told';
import { TrayPicture } from './TrayPicture';
import type { GameProps } from './game';

interface Props extends GameProps {
  /** the written scale of a trial's own trait; left out: Palazzo's for cover */
  scale?: readonly { value: number; text: string }[] | undefined;
  /** how many different pictures, and how many of them come again */
  things: number;
  again: number;
  /** hears both scores of each picture that came twice */
  onPairs?: ((pairs: [number, number][]) => void) | undefined;
}

/** Pictures scored on a written scale; some come again, turned. */
export function ScoreGame({
  seed,
  level,
  onAnswered,
  onNext,
  scale = coverScale,
  things,
  again,
  onPairs,
}: Props) {
  const series = useMemo(() => scoringSeries(seed, things, again, level), [seed, level, things, again]);
  const [scores, setScores] = useState<readonly number[]>([]);
  /** what somebody scored the same pictures before */
  const [other, setOther] = useState<readonly number[] | null>(null);
  const at = scores.length;
  const done = at === series.length;
  const pairsIn = (all: readonly number[]) =>
    Array.from({ length: things }, (_, t) =>
      series.flatMap((s, i) => (s.thing === t && all[i] !== undefined ? [all[i]] : [])),
    ).flatMap(([a, b]): [number, number][] => (a !== undefined && b !== undefined ? [[a, b]] : []));
  const score = (value: number) => {
    const all = [...scores, value];
    setScores(all);
    // A second person's run is no case of one's own.
    if (all.length < series.length || other) return;
    const pairs = pairsIn(all);
    onAnswered({ right: pairs.filter(([a, b]) => a === b).length >= 0.75 * pairs.length });
    onPairs?.(pairs);
  };
  if (done) {
    const steps = scale.map((s) => s.value);
    const found = agreement(pairsIn(scores), steps);
    const between =
      other &&
      agreement(
        other.map((first, i) => [first, scores[i]!] as const),
        steps,
      );
    return (
      <Told
        title={
          between
            ? `The two of you: ${between.same} of ${between.pairs} the same.`
            : `${found.same} of ${found.pairs} the same twice.`
        }
        onNext={onNext}
      >
        {between && <p>{sayAgreement(between, 'both')}</p>}
        <p>
          {between && 'The second person alone: '}
          {sayAgreement(found)}
        </p>
        {!other && !onPairs && (
          <Button
            color="secondary"
            onClick={() => {
              setOther(scores);
              setScores([]);
            }}
          >
            Another person, the same pictures
          </Button>
        )}
        <p className="small quiet">
          Weighted kappa: 1 is full agreement, 0 what chance alone would give; a step apart counts less than
          two (Cohen 1968, linear weights).
        </p>
      </Told>
    );
  }
  return (
    <>
      <LeaveGuard unsaved={at > 0} what="The scores of this series" />
      <p className="quiet">
        Picture {at + 1} of {series.length}. Score what you see by the written scale; some come again.
      </p>
      <TrayPicture {...series[at]!} label="A tray from above, to be scored by eye" />
      <div className="taster-scale" role="group" aria-label="The written scale" style={{ marginTop: '1rem' }}>
        {scale.map((s) => (
          <Button
            key={s.value}
            variant="outlined"
            color="secondary"
            fullWidth
            sx={{ justifyContent: 'flex-start', gap: 2, mb: 0.6 }}
            onClick={() => score(s.value)}
          >
            <span className="num">{s.value}</span> {s.text}
          </Button>
        ))}
      </div>
    </>
  );
}

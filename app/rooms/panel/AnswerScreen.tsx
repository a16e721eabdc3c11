import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { type PanelAttribute, asksScores } from '~core/model/panel';
import { traitKinds } from '~core/model/traitKinds';
import { ranksOf } from '../../ui/ranked';
import { SetQuestion } from './SetQuestion';
import { TasterWords } from './TasterWords';
import type { Screen, TasterAnswer, TasterSheet } from './tasterSheet';
import { useDraft } from './useDraft';

const blank = (at: { set: number; code: string | null }, scales: number): TasterAnswer => ({
  ...at,
  scores: Array.from({ length: scales }, () => null),
  ranks: [],
  chosen: null,
  words: [],
  remark: '',
});

/** Steps to tap, lowest first. */
const stepsOf = (a: PanelAttribute) =>
  traitKinds.score
    .choices({ unit: '', decimals: 0, samplesPerUnit: 1, outOf: null, scale: a.steps })
    .toReversed();

interface AnswerProps {
  sheet: TasterSheet;
  at: Exclude<Screen, { kind: 'guess' }>;
  kept: TasterAnswer | undefined;
  pictures: ReadonlyMap<string, string> | undefined;
  onKeep: (answer: TasterAnswer) => void;
}

/** One sample with its scales and words, or one set to choose from. */
export function AnswerScreen({ sheet, at, kept, pictures, onKeep }: AnswerProps) {
  const { session } = sheet;
  const code = at.kind === 'cup' ? at.code : null;
  const scales = asksScores(session.kind) ? session.attributes : [];
  const { value, put } = useDraft<TasterAnswer>(
    `${session.id}/${sheet.taster}/${at.set}/${code ?? ''}`,
    kept ?? blank({ set: at.set, code }, scales.length),
  );
  const [fault, setFault] = useState('');
  const { cups } = sheet.sets[at.set]!;
  const keep = () => {
    const open = scales.find((_, i) => value.scores[i] == null);
    if (code !== null && open) return setFault(`Tap a step for ${open.name.toLowerCase()} first.`);
    if (code === null && session.kind !== 'ranking' && value.chosen === null)
      return setFault('Tap one of them first.');
    const ranks =
      code === null && session.kind === 'ranking' && value.ranks.length === 0
        ? ranksOf(cups.map((id) => ({ id, tied: false }))).map((r) => ({ code: r.id, rank: r.rank }))
        : value.ranks;
    onKeep({ ...value, ranks });
  };
  const change = (part: Partial<TasterAnswer>) => {
    put({ ...value, ...part });
    setFault('');
  };
  return (
    <>
      {code === null ? (
        <SetQuestion sheet={sheet} cups={cups} value={value} onChange={change} pictures={pictures} />
      ) : (
        <>
          <h1 id="sample" tabIndex={-1} className="taster-code">
            {code}
          </h1>
          {pictures?.get(code) && (
            <img className="taster-picture" src={pictures.get(code)} alt={`Sample ${code}`} />
          )}
          {scales.map((a, i) => (
            <fieldset className="taster-scale" key={a.name}>
              <legend>{a.name}</legend>
              {stepsOf(a).map((s) => (
                <button
                  type="button"
                  key={s.value}
                  className="taster-step"
                  aria-pressed={value.scores[i] === s.value}
                  onClick={() =>
                    change({ scores: scales.map((_, j) => (j === i ? s.value : (value.scores[j] ?? null))) })
                  }
                >
                  <span className="num">{s.value}</span>
                  <span>{s.text}</span>
                </button>
              ))}
            </fieldset>
          ))}
          <TasterWords words={session.words} ticked={value.words} onTick={(words) => change({ words })} />
          <TextField
            label="In your own words"
            value={value.remark}
            onChange={(e) => change({ remark: e.target.value.slice(0, 500) })}
            multiline
            fullWidth
          />
        </>
      )}
      {fault && (
        <p role="alert" className="small" style={{ color: 'var(--porphyry)' }}>
          {fault}
        </p>
      )}
      <Button variant="contained" size="large" fullWidth onClick={keep} sx={{ minHeight: 56 }}>
        Keep and go on
      </Button>
    </>
  );
}

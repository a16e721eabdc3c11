import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { type ReactNode, useEffect, useState } from 'react';
import { type PanelAttribute, asksScores } from '~core/model/panel';
import { traitKinds } from '~core/model/traitKinds';
import { RankList } from '../../ui/RankList';
import { type Ranked, orderOf, ranksOf } from '../../ui/ranked';
import {
  type Screen,
  type TasterAnswer,
  type TasterGuess,
  type TasterSheet,
  answerAt,
  screensOf,
} from './tasterSheet';
import { useDraft } from './useDraft';
import './Taster.css';

interface Props {
  sheet: TasterSheet;
  answers: readonly TasterAnswer[];
  guess: TasterGuess | null;
  /** addresses of the pictures that are shown, by code */
  pictures?: ReadonlyMap<string, string>;
  onAnswer: (answer: TasterAnswer) => void;
  onGuess: (guess: TasterGuess) => void;
  /** what stands at the end */
  end: ReactNode;
}

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

/** A taster's pages: one sample a screen, its code large, nothing else on it. */
export function TasterPages({ sheet, answers, guess, pictures, onAnswer, onGuess, end }: Props) {
  const screens = screensOf(sheet);
  const isAnswered = (at: Screen) =>
    at.kind === 'guess' ? guess !== null : answerAt(answers, at) !== undefined;
  const firstOpen = screens.findIndex((at) => !isAnswered(at));
  const [step, setStep] = useState(() => (firstOpen < 0 ? screens.length : firstOpen));
  // Who listens hears the next screen begin; who looks sees it from the top.
  useEffect(() => {
    document.querySelector<HTMLElement>('#sample')?.focus();
    window.scrollTo(0, 0);
  }, [step]);
  const at = screens[step];
  const goOn = () => setStep(step + 1);
  return (
    <main className="taster" aria-label="Tasting">
      <p className="taster-head small quiet">
        {sheet.session.name} · {sheet.name}
        <span className="num">
          {Math.min(step + 1, screens.length)} of {screens.length}
        </span>
      </p>
      {at === undefined ? (
        <>
          <h1 id="sample" tabIndex={-1}>
            Thank you
          </h1>
          {end}
        </>
      ) : at.kind === 'guess' ? (
        <GuessScreen sheet={sheet} guess={guess} onKeep={(g) => (onGuess(g), goOn())} />
      ) : (
        <AnswerScreen
          key={step}
          sheet={sheet}
          at={at}
          kept={answerAt(answers, at)}
          pictures={pictures}
          onKeep={(a) => (onAnswer(a), goOn())}
        />
      )}
      {step > 0 && (
        <p>
          <Button color="inherit" onClick={() => setStep(step - 1)}>
            Back
          </Button>
        </p>
      )}
    </main>
  );
}

interface AnswerProps {
  sheet: TasterSheet;
  at: Exclude<Screen, { kind: 'guess' }>;
  kept: TasterAnswer | undefined;
  pictures: ReadonlyMap<string, string> | undefined;
  onKeep: (answer: TasterAnswer) => void;
}

function AnswerScreen({ sheet, at, kept, pictures, onKeep }: AnswerProps) {
  const { session } = sheet;
  const code = at.kind === 'cup' ? at.code : null;
  const scales = asksScores(session.kind) ? session.attributes : [];
  const { value, put, clear } = useDraft<TasterAnswer>(
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
    clear();
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
          <Words words={session.words} ticked={value.words} onTick={(words) => change({ words })} />
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

const questionOf = ({ session }: TasterSheet): string => {
  switch (session.kind) {
    case 'triangle':
      return 'Two are the same. Which is the odd one?';
    case 'duo-trio':
      return 'Which of the two is like the first?';
    default:
      return session.asked;
  }
};

interface SetProps {
  sheet: TasterSheet;
  cups: readonly string[];
  value: TasterAnswer;
  onChange: (part: Partial<TasterAnswer>) => void;
  pictures: ReadonlyMap<string, string> | undefined;
}

function SetQuestion({ sheet, cups, value, onChange, pictures }: SetProps) {
  const picture = (code: string) =>
    pictures?.get(code) && <img className="taster-picture" src={pictures.get(code)} alt={`Sample ${code}`} />;
  if (sheet.session.kind === 'ranking') {
    const order = orderOf(cups, (id) => value.ranks.find((r) => r.code === id)?.rank);
    return (
      <>
        <h1 id="sample" tabIndex={-1}>
          {questionOf(sheet)}
        </h1>
        <RankList
          label={questionOf(sheet)}
          order={order}
          onOrder={(to: Ranked[]) =>
            onChange({ ranks: ranksOf(to).map((r) => ({ code: r.id, rank: r.rank })) })
          }
          nameOf={(id) => id}
          face={(id) => (
            <>
              <strong className="taster-small-code">{id}</strong>
              {picture(id)}
            </>
          )}
        />
      </>
    );
  }
  const first = sheet.session.kind === 'duo-trio' ? cups[0] : undefined;
  return (
    <>
      <h1 id="sample" tabIndex={-1}>
        {questionOf(sheet)}
      </h1>
      {first && (
        <p>
          The first: <strong className="taster-small-code">{first}</strong>
          {picture(first)}
        </p>
      )}
      <div className="taster-choices">
        {cups
          .filter((c) => c !== first)
          .map((code) => (
            <button
              type="button"
              key={code}
              className="taster-step taster-choice"
              aria-pressed={value.chosen === code}
              onClick={() => onChange({ chosen: code })}
            >
              {code}
              {picture(code)}
            </button>
          ))}
      </div>
    </>
  );
}

/** Words to tick, the session's and one's own. */
function Words({
  words,
  ticked,
  onTick,
}: {
  words: readonly string[];
  ticked: readonly string[];
  onTick: (words: string[]) => void;
}) {
  const [own, setOwn] = useState('');
  const all = [...words, ...ticked.filter((w) => !words.includes(w))];
  const add = () => {
    const word = own.trim().toLowerCase().slice(0, 30);
    setOwn('');
    if (word !== '' && !ticked.includes(word)) onTick([...ticked, word]);
  };
  return (
    <fieldset className="taster-words">
      <legend className="small quiet">Words that fit</legend>
      {all.map((w) => (
        <button
          type="button"
          key={w}
          aria-pressed={ticked.includes(w)}
          onClick={() => onTick(ticked.includes(w) ? ticked.filter((x) => x !== w) : [...ticked, w])}
        >
          {w}
        </button>
      ))}
      <span className="inline-row">
        <TextField
          size="small"
          label="Another word"
          value={own}
          onChange={(e) => setOwn(e.target.value)}
          onKeyDown={(e) => e.key === 'Enter' && add()}
          onBlur={add}
        />
      </span>
    </fieldset>
  );
}

/** Before anything is told: which two are the same, which is which. */
function GuessScreen({
  sheet,
  guess,
  onKeep,
}: {
  sheet: TasterSheet;
  guess: TasterGuess | null;
  onKeep: (guess: TasterGuess) => void;
}) {
  const cups = [...new Set(sheet.sets.flatMap((s) => s.cups))];
  const { value, put, clear } = useDraft<{ pressed: string[]; which: TasterGuess['which'] }>(
    `${sheet.session.id}/${sheet.taster}/guess`,
    { pressed: guess?.same ?? [], which: guess?.which ?? [] },
  );
  const asksWhich = sheet.session.guess === 'which';
  const { pressed } = value;
  // The third pressed takes the place of the first.
  const toggle = (code: string) =>
    put({
      ...value,
      pressed: pressed.includes(code) ? pressed.filter((c) => c !== code) : [...pressed, code].slice(-2),
    });
  const keep = () => {
    clear();
    const [one, two] = pressed;
    onKeep({ same: one !== undefined && two !== undefined ? [one, two] : null, which: value.which });
  };
  return (
    <>
      <h1 id="sample" tabIndex={-1}>
        {asksWhich ? 'Which is which? A guess will do.' : 'Which two are the same? A guess will do.'}
      </h1>
      {asksWhich ? (
        cups.map((code) => (
          <TextField
            key={code}
            select
            fullWidth
            label={code}
            value={value.which.find((w) => w.code === code)?.treatmentId ?? ''}
            onChange={(e) => {
              const id = sheet.contenders.find((c) => c.id === e.target.value)?.id;
              const others = value.which.filter((w) => w.code !== code);
              put({ ...value, which: id ? [...others, { code, treatmentId: id }] : others });
            }}
          >
            <MenuItem value="">no guess</MenuItem>
            {sheet.contenders.map((c) => (
              <MenuItem key={c.id} value={c.id}>
                {c.name}
              </MenuItem>
            ))}
          </TextField>
        ))
      ) : (
        <div className="taster-choices">
          {cups.map((code) => (
            <button
              type="button"
              key={code}
              className="taster-step taster-choice"
              aria-pressed={pressed.includes(code)}
              onClick={() => toggle(code)}
            >
              {code}
            </button>
          ))}
        </div>
      )}
      <Button variant="contained" size="large" fullWidth sx={{ minHeight: 56 }} onClick={keep}>
        Keep and go on
      </Button>
    </>
  );
}

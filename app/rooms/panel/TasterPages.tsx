import Button from '@mui/material/Button';
import { type ReactNode, useEffect, useState } from 'react';
import { AnswerScreen } from './AnswerScreen';
import { GuessScreen } from './GuessScreen';
import {
  type Screen,
  type TasterAnswer,
  type TasterGuess,
  type TasterSheet,
  answerAt,
  screensOf,
} from './tasterSheet';
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
        firstOpen < 0 ? (
          <>
            <h1 id="sample" tabIndex={-1}>
              Thank you
            </h1>
            {end}
          </>
        ) : (
          <>
            <h1 id="sample" tabIndex={-1}>
              Not everything is kept yet
            </h1>
            <p role="status">
              Screen {firstOpen + 1} of {screens.length} isn’t in the log. What was typed on it stays there.
            </p>
            <Button variant="contained" onClick={() => setStep(firstOpen)} sx={{ minHeight: 56 }}>
              Go to it
            </Button>
          </>
        )
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

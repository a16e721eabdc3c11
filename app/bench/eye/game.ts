import type { EyeAnswer } from '~core/eye/record';

/** What a game is given, and what it says when a case is answered. */
export interface GameProps {
  /** makes the case, with the level */
  seed: number;
  level: number;
  onAnswered: (answer: Pick<EyeAnswer, 'right'> & Partial<Pick<EyeAnswer, 'call' | 'faults'>>) => void;
  /** the next case */
  onNext: () => void;
}

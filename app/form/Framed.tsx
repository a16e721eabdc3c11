import type { z } from 'zod';
import { faultOrReadings } from '../ui/Readings';
import { faultIn } from './TypedField';

type Typed = Readonly<Record<string, string>>;

/** Figures typed place by place: those that are read, and what is wrong with the others, by their keys. */
export function figuresIn(typed: Typed, of: z.ZodType<number | null, string>) {
  const figures = new Map<string, number>();
  const faults = new Map<string, string>();
  for (const [key, text] of Object.entries(typed)) {
    const read = of.safeParse(text).data;
    if (read === undefined) faults.set(key, faultIn(of, text));
    else if (read !== null) figures.set(key, read);
  }
  return { figures, faults };
}

/** What is wrong with the first of the framed figures; where it can be read in two ways, both stand there to be pressed. */
export function FramedFault({
  typed,
  faults,
  called,
  onPick,
}: {
  typed: Typed;
  faults: ReadonlyMap<string, string>;
  /** what a place is called */
  called: (key: string) => string;
  onPick: (key: string, text: string) => void;
}) {
  const [first] = faults;
  if (!first) return null;
  const [key, fault] = first;
  return (
    <div role="alert" className="small" style={{ color: 'var(--porphyry)' }}>
      {called(key)}: {faultOrReadings(fault, typed[key], (text) => onPick(key, text))}
      {faults.size > 1 && <div>{faults.size} figures are framed.</div>}
    </div>
  );
}

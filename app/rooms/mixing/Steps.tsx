import { useState } from 'react';
import type { MixingStep } from '~core/mixing/order';
import { sentenceCase } from '~core/quantity/format';

/** Ticks last as long as the tab: a phone that goes dark doesn't lose them. */
const keyOf = (key: string) => `palazzo-steps/${key}`;

function remembered(key: string): string[] {
  try {
    return JSON.parse(sessionStorage.getItem(keyOf(key)) ?? '[]') as string[];
  } catch {
    return [];
  }
}

/** What is measured stands out of its sentence: it is read at the scale, from a step away. */
const withAmounts = (text: string) =>
  text
    .split(/(\d[\d.,]*\s(?:g|kg|mL|L|oz|fl oz|gal|tsp|tbsp)\b)/)
    .map((part, i) => (i % 2 === 1 ? <b key={i}>{part}</b> : part));

/** The order of mixing as steps to tick; each caution stands at its step. */
export function Steps({ steps, storageKey }: { steps: readonly MixingStep[]; storageKey: string }) {
  const [ticked, setTicked] = useState(() => new Set(remembered(storageKey)));
  const tick = (id: string, on: boolean) => {
    const next = new Set(ticked);
    if (on) next.add(id);
    else next.delete(id);
    setTicked(next);
    try {
      sessionStorage.setItem(keyOf(storageKey), JSON.stringify([...next]));
    } catch {
      // without storage the ticks last as long as the card
    }
  };
  return (
    <ol className="mix-steps" aria-label="Steps">
      {steps.map((s) => (
        <li key={s.id} className={ticked.has(s.id) ? 'done' : undefined}>
          <label>
            <input
              type="checkbox"
              checked={ticked.has(s.id)}
              onChange={(e) => tick(s.id, e.target.checked)}
            />
            <span>
              {withAmounts(s.text)}
              {s.why && <span className="quiet small"> {sentenceCase(s.why)}.</span>}
              {s.caution && <span className="step-caution small">{s.caution}</span>}
            </span>
          </label>
        </li>
      ))}
    </ol>
  );
}

import type { ScaleStep } from '~core/model/plan';
import { ok } from '~core/model/result';
import { typedList } from '../../form/schemaFields';

/**
 * A written scale as typed: one step a line, worst first. “3 pale” is step 3; a line without a figure is one
 * more than the line before; “1–10” is a scale whose steps need no words.
 */
export function parseScale(text: string): ScaleStep[] {
  let next = 1;
  const range = /^\s*(\d{1,3})\s*(?:-|–|to)\s*(\d{1,3})\s*$/.exec(text);
  if (range) {
    return [Number(range[1]), Number(range[2])].sort((a, b) => a - b).map((value) => ({ value, text: '' }));
  }
  return text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
    .map((line) => {
      const match = /^(\d{1,3})\s*[=:.)–-]?\s*(.*)$/.exec(line);
      const value = match ? Number(match[1]) : next;
      next = value + 1;
      return { value, text: (match ? match[2]! : line).slice(0, 200) };
    })
    .sort((a, b) => a.value - b.value);
}

const sayStep = (s: ScaleStep) => `${s.value} ${s.text}`.trim();
export const scaleToText = (scale: readonly ScaleStep[]): string => scale.map(sayStep).join('\n');

/** A written scale as a field. */
export const writtenScale = typedList<ScaleStep>((text) => ok(parseScale(text)), '\n', sayStep);

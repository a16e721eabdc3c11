import type { Batch } from './batch';

/**
 * What a batch must not hurt anybody with, for what is in it and nothing else; labels come first.
 *
 * @returns '' for plain water; what is given as it is says its own at each step
 */
export function batchCaution(lines: Batch['lines'], direct: boolean): string {
  if (lines.length === 0) return '';
  const dry = lines.some((l) => l.product.form !== 'liquid' && l.unit !== 'piece');
  const liquid = lines.some((l) => l.product.form === 'liquid');
  return [
    !direct && lines.length > 1 && 'Each into the water on its own, never concentrates together.',
    !direct && lines.length === 1 && liquid && 'The concentrate into the water, never water into it.',
    dry && !direct && 'Gloves and eye protection where powder is stirred in.',
    liquid && 'Gloves and eye protection with acids, peroxide and what the label says.',
    (dry || liquid) && 'Never in food or drink bottles without a label.',
    'Labels and safety data sheets come first.',
  ]
    .filter((s) => s !== false)
    .join(' ');
}

import type { Block } from './block';

/** A sentence of the review as the reviewer has it: kept beside the generated one. */
export interface Edit {
  /** the generated text it stands for */
  was: string;
  text: string;
}

/** Sections a review can't do without: what is disclosed, what could be objected, and what stays open. */
export const ALWAYS = ['Disclosure', 'What could be objected', 'What this trial can’t tell'];

/** Sections of a document, by their headings, in order. */
export const sectionsOf = (blocks: readonly Block[]): string[] =>
  blocks.flatMap((b) => (b.type === 'heading' && b.level === 2 ? [b.text] : []));

/**
 * The document with its sections in another order; what stands before the first one stays there. Sections named in the
 * order take the places these sections had among all.
 *
 * @example sectionsOf(inOrder(blocks, ['Cost', 'Findings'])) // 'Cost' where 'Findings' was, and the other way round
 */
export function inOrder(blocks: readonly Block[], order: readonly string[]): Block[] {
  const parts: Block[][] = [[]];
  for (const b of blocks) {
    // The record begins anew: it is no part of the section before it.
    if (b.type === 'heading' && (b.level === 2 || (b.level === 1 && parts.length > 1))) parts.push([]);
    parts.at(-1)!.push(b);
  }
  const [front, ...sections] = parts;
  const title = (part: Block[]) => (part[0]?.type === 'heading' ? part[0].text : '');
  const named = sections.filter((s) => order.includes(title(s)));
  const sorted = [...named].sort((a, b) => order.indexOf(title(a)) - order.indexOf(title(b)));
  return [front!, ...sections.map((s) => (named.includes(s) ? sorted.shift()! : s))].flat();
}

/** Texts that can be rewritten: sentences and notes, not figures, tables or headings. */
export const sentencesOf = (blocks: readonly Block[]): string[] => [
  ...new Set(
    blocks.flatMap((b) =>
      b.type === 'paragraph' || b.type === 'note' ? [b.text] : b.type === 'list' ? b.items : [],
    ),
  ),
];

/**
 * A document with the reviewer's own sentences in place of generated ones, and without sections that were left out.
 *
 * @param hidden headings of sections that are left out; those a review can't do without stay
 * @param order headings in the reviewer's own order; sections that aren't in it stay where they were
 * @returns edits whose sentence isn't generated any more, because the data changed: they are in no document
 */
export function edited(
  blocks: readonly Block[],
  edits: readonly Edit[],
  hidden: readonly string[],
  order: readonly string[] = [],
): { blocks: Block[]; outOfDate: Edit[] } {
  const own = new Map(edits.map((e) => [e.was, e.text]));
  const there = new Set(sentencesOf(blocks));
  const left = new Set(hidden.filter((h) => !ALWAYS.includes(h)));
  const out: Block[] = [];
  let section = '';
  for (const b of inOrder(blocks, order)) {
    if (b.type === 'heading' && b.level <= 2) section = b.level === 2 ? b.text : '';
    if (left.has(section)) continue;
    if (b.type === 'paragraph' || b.type === 'note') out.push({ ...b, text: own.get(b.text) ?? b.text });
    else if (b.type === 'list') out.push({ ...b, items: b.items.map((i) => own.get(i) ?? i) });
    else out.push(b);
  }
  return { blocks: out, outOfDate: edits.filter((e) => !there.has(e.was)) };
}

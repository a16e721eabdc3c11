/** Words that say nothing of what a trial is about. */
const little = new Set(
  'a an and are at be best better buy by can do does for from give good how in is it its make more most of on or than the their this to was what which who with worth your'.split(
    ' ',
  ),
);

/**
 * Three capitals for the labels of a trial, from its crop or else the words of its question; one that no other trial
 * has.
 *
 * @param taken codes of other trials
 * @returns empty where there are no letters to take it from
 * @example proposeCode('', 'Is the dear feed worth it?', []) // 'DEA'
 */
export function proposeCode(crop: string, question: string, taken: readonly string[]): string {
  const plain = (text: string) =>
    text
      .normalize('NFD')
      .replace(/[\u0300-\u036f]/g, '')
      .toLowerCase()
      .split(/[^a-z]+/)
      .filter((w) => w.length > 2 && !little.has(w));
  const words = [...plain(crop), ...plain(question)];
  const letters = words.join('').toUpperCase();
  if (letters.length < 3) return '';
  const candidates = [
    ...words.map((w) => w.slice(0, 3).toUpperCase()),
    // The first two letters with any later one, then with any of the alphabet.
    ...[...letters.slice(2), ...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'].map((l) => letters.slice(0, 2) + l),
  ];
  return candidates.find((c) => c.length === 3 && !taken.includes(c)) ?? '';
}

/** Text without the control characters that no page can show; line ends and tabs stay. */
export const printable = (text: string): string =>
  [...text].filter((c) => c >= ' ' || c === '\n' || c === '\r' || c === '\t').join('');

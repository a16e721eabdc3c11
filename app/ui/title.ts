/** The title of a page, the narrowest first. @example titled('Findings', 'COR') // [{ title: 'Findings · COR · Palazzo' }] */
export const titled = (...parts: (string | undefined)[]) => [
  { title: [...parts.filter((p) => p !== undefined && p !== ''), 'Palazzo'].join(' · ') },
];

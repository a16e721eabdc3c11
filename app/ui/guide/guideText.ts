import { benchPages } from '../benchPages';

/** A stretch of a paragraph as it is set. */
export interface Run {
  as: 'plain' | 'strong' | 'em' | 'code';
  text: string;
}

/** The heading of the guide that a page belongs to. @example headingOf('/trial/a/weigh-in') // 'Weigh-in' */
export function headingOf(path: string): string {
  const room = /^\/trial\/[^/]+\/([\w-]+)/.exec(path)?.[1];
  if (room === 'log') return 'The log';
  if (room) return room.charAt(0).toUpperCase() + room.slice(1);
  if (path === '/trials/new') return 'New trial';
  const page = benchPages.find(({ to }) => to !== '/' && path.startsWith(to));
  return (page ?? benchPages[0]!).name;
}

/** The headings of the guide, in their order. */
export const headingsIn = (guide: string): string[] => [...guide.matchAll(/^## (.+)$/gm)].map((m) => m[1]!);

/** What the guide says under a heading, a list of runs for each paragraph, without its pictures; null: no such heading. */
export function sectionOf(guide: string, heading: string): Run[][] | null {
  const section = guide.split(/^## /m).find((s) => s.startsWith(`${heading}\n`));
  if (section === undefined) return null;
  return section
    .slice(heading.length)
    .replace(/!\[[^\]]*\]\([^)]*\)/g, '')
    .replace(/\[([^\]]*)\]\([^)]*\)/g, '$1')
    .split(/\n\s*\n/)
    .map((p) => p.replace(/\s+/g, ' ').trim())
    .filter((p) => p !== '')
    .map(runsOf);
}

const marks = [
  ['**', 'strong'],
  ['`', 'code'],
  ['_', 'em'],
] as const;

function runsOf(paragraph: string): Run[] {
  return paragraph.split(/(\*\*[^*]+\*\*|`[^`]+`|\b_[^_]+_|(?<=^|\s)_[^_]+_)/).flatMap((text): Run[] => {
    if (text === '') return [];
    const mark = marks.find(([m]) => text.length > 2 * m.length && text.startsWith(m) && text.endsWith(m));
    if (!mark) return [{ as: 'plain', text }];
    return [{ as: mark[1], text: text.slice(mark[0].length, -mark[0].length) }];
  });
}

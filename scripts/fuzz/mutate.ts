import type { Random } from '~core/stats/random';

/** Texts that mean something somewhere: to a page, a spreadsheet, a shell, a prototype, a font. */
export const nasty = [
  '<script>alert(1)</script>',
  '"><img src=x onerror=alert(1)>',
  '=HYPERLINK("http://x","y")',
  '+1+cmd|calc!A0',
  '-2+3',
  '@SUM(A1:A9)',
  '\tTAB\r\nLINE',
  '\ud800 half',
  '\u202egnp.exe',
  '\u0000nul',
  '__proto__',
  'constructor',
  '../../etc/passwd',
  'x'.repeat(20_000),
  '',
  ' ',
  '𝔘𝔫𝔦',
  '1e999',
  'NaN',
  '٣٫٥',
];
const numbers = [0, -0, -1, 1e308, -1e308, 1e-320, 2 ** 53, NaN, Infinity, 0.1 + 0.2, 4_294_967_296];

/** Ways to spoil values, bytes and texts, by one stream of chance. */
export function spoiling(random: Random) {
  const below = (n: number) => Math.floor(random.uniform() * n);
  const oneOf = <T>(list: readonly T[]): T => list[below(list.length)]!;

  /** A value of the wrong kind, or a nasty one of the right kind. */
  function wrong(): unknown {
    switch (below(9)) {
      case 0:
        return oneOf(nasty);
      case 1:
        return oneOf(numbers);
      case 2:
        return null;
      case 3:
        return [];
      case 4:
        return {};
      case 5:
        return Array.from({ length: below(2000) }, () => oneOf(nasty));
      case 6:
        return true;
      case 7: {
        let deep: unknown = oneOf(nasty);
        for (let i = below(oneOf([3, 80])); i > 0; i--) deep = i % 2 ? [deep] : { a: deep };
        return deep;
      }
      default:
        return JSON.parse(
          '{"__proto__": {"polluted": true}, "constructor": {"prototype": {"polluted": true}}}',
        );
    }
  }

  /** Changes one to three places anywhere inside a value. */
  function mutated(value: unknown): unknown {
    const copy = structuredClone(value);
    for (let n = 1 + below(3); n > 0; n--) {
      let at = copy as Record<string, unknown>;
      for (let depth = 0; depth < 9; depth++) {
        const keys = Object.keys(at);
        if (keys.length === 0) break;
        const key = oneOf(keys);
        const child = at[key];
        if (typeof child === 'object' && child !== null && random.uniform() < 0.8) {
          at = child as Record<string, unknown>;
          continue;
        }
        const what = below(4);
        if (what === 0 && !Array.isArray(at)) delete at[key];
        else if (what === 1 && Array.isArray(at)) at.push(structuredClone(child));
        else if (what === 2 && typeof child === 'string') at[key] = oneOf(nasty);
        else at[key] = typeof child === 'number' && random.uniform() < 0.5 ? oneOf(numbers) : wrong();
        break;
      }
    }
    return copy;
  }

  function mutatedBytes(bytes: Uint8Array): Uint8Array {
    const copy = Uint8Array.from(bytes);
    switch (below(4)) {
      case 0:
        return copy.slice(0, below(copy.length));
      case 1:
        for (let i = 1 + below(20); i > 0; i--) copy[below(copy.length)] = below(256);
        return copy;
      case 2: {
        const [from, length] = [below(copy.length), below(500)];
        copy.copyWithin(below(copy.length), from, from + length);
        return copy;
      }
      default:
        return Uint8Array.from([...copy.slice(0, below(copy.length)), ...copy.slice(below(copy.length))]);
    }
  }

  function mutatedText(text: string): string {
    const lines = text.split('\n');
    for (let n = 1 + below(5); n > 0; n--) {
      const at = below(lines.length);
      switch (below(5)) {
        case 0:
          lines.splice(at, 1);
          break;
        case 1:
          lines.splice(at, 0, oneOf(lines));
          break;
        case 2:
          lines[at] = `${lines[at]}${oneOf([',', ';', '\t', '"'])}${oneOf(nasty)}`;
          break;
        case 3:
          lines[at] = (lines[at] ?? '').replace(/\d+/, () => String(oneOf(numbers)));
          break;
        default:
          lines[at] = oneOf(nasty);
      }
    }
    return lines.join(oneOf(['\n', '\r\n', '\r']));
  }
  return { random, below, oneOf, mutated, mutatedBytes, mutatedText };
}
export type Spoiling = ReturnType<typeof spoiling>;

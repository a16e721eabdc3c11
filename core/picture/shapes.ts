import type { Drawing, Face, Ink, Mark } from './marks';
import { printable } from './printable';
import { tesseraStyle } from './tessera';

/** What a picture is drawn in. */
export type Colours = Record<Ink, string>;
export type Faces = Record<Face, string>;

/** Faces every maker of PDFs has. */
export const plainFaces: Faces = {
  serif: 'Georgia, serif',
  sans: 'Helvetica, Arial, sans-serif',
  mono: 'Courier, monospace',
};

/** The page’s own faces, for a picture that stands in the page. */
export const pageFaces: Faces = {
  serif: 'Fraunces Variable, Fraunces, Georgia, serif',
  sans: 'Source Sans 3 Variable, Source Sans 3, system-ui, sans-serif',
  mono: 'Source Sans 3 Variable, Source Sans 3, system-ui, sans-serif',
};

/** An element of SVG, its attributes in camel case. */
export interface Shape {
  tag: 'rect' | 'line' | 'path' | 'circle' | 'text' | 'g' | 'image';
  attributes: Record<string, string | number>;
  text?: string;
  within?: Shape[];
  said?: string;
}

const TILE = 24;

/** A contender's tile on a field of 24 × 24. */
function tileShapes(index: number, sheet: string, own: string): Shape[] {
  const box = { x: 1, y: 1, width: 22, height: 22, rx: 4 };
  return [
    { tag: 'rect', attributes: { ...box, fill: sheet } },
    { tag: 'path', attributes: { d: tesseraStyle(index).path, fill: own, fillRule: 'evenodd' } },
    { tag: 'rect', attributes: { ...box, fill: 'none', stroke: own, strokeWidth: 2 } },
  ];
}

function bare(m: Mark, colour: (ink: Ink) => string, faces: Faces): Shape {
  switch (m.mark) {
    case 'rect':
      return {
        tag: 'rect',
        attributes: {
          ...{ x: m.at[0], y: m.at[1], width: m.width, height: m.height, fill: colour(m.fill) },
          ...(m.stroke && { stroke: colour(m.stroke) }),
          ...(m.round !== undefined && { rx: m.round }),
          ...(m.tint !== undefined && { fillOpacity: m.tint }),
        },
      };
    case 'line':
      return {
        tag: 'line',
        attributes: {
          ...{ x1: m.from[0], y1: m.from[1], x2: m.to[0], y2: m.to[1], stroke: colour(m.stroke) },
          ...(m.width !== undefined && { strokeWidth: m.width }),
          ...(m.dashed && { strokeDasharray: '4 3' }),
        },
      };
    case 'path':
      return {
        tag: 'path',
        attributes: { d: m.d, fill: 'none', stroke: colour(m.stroke), strokeWidth: m.width },
      };
    case 'dot':
      return {
        tag: 'circle',
        attributes: {
          ...{ cx: m.at[0], cy: m.at[1], r: m.radius, fill: m.fill === null ? 'none' : colour(m.fill) },
          ...{ stroke: colour(m.stroke), strokeWidth: m.width ?? 1 },
        },
      };
    case 'text':
      return {
        tag: 'text',
        attributes: {
          ...{ x: m.at[0], y: m.at[1], fontFamily: faces[m.face ?? 'sans'], fontSize: m.size ?? 13 },
          ...(m.bold && { fontWeight: 600 }),
          ...(m.anchor && { textAnchor: m.anchor }),
          fill: colour(m.ink ?? 'ink'),
        },
        text: m.text,
      };
    case 'tile': {
      const size = m.size ?? 14;
      const corner = `translate(${m.at[0] - size / 2} ${m.at[1] - size / 2})`;
      return {
        tag: 'g',
        attributes: { transform: `${corner} scale(${size / TILE})` },
        within: tileShapes(m.index, colour('sheet'), colour(`tile-${m.index % 8}` as Ink)),
      };
    }
    case 'photo':
      return {
        tag: 'image',
        attributes: {
          ...{ x: m.at[0], y: m.at[1], width: m.width, height: m.height, href: m.source },
          preserveAspectRatio: 'xMidYMid slice',
        },
      };
  }
}

/** A mark as an element of SVG. @param colour what stands for each colour: a value, or a variable of the page */
export function shapeOf(m: Mark, colour: (ink: Ink) => string, faces: Faces): Shape {
  const shape = bare(m, colour, faces);
  return {
    ...shape,
    ...(m.opacity !== undefined && { attributes: { ...shape.attributes, opacity: m.opacity } }),
    ...(m.said !== undefined && { said: m.said }),
  };
}

const escaped = (text: string) => printable(text).replace(/[&<>"']/g, (c) => `&#${c.charCodeAt(0)};`);
/** Attributes of SVG that keep their capitals. */
const asWritten = new Set(['preserveAspectRatio']);
const attribute = (name: string) =>
  asWritten.has(name) ? name : name.replace(/[A-Z]/g, (c) => `-${c.toLowerCase()}`);

function written({ tag, attributes, text, within, said }: Shape): string {
  const given = Object.entries(attributes)
    .map(([name, value]) => ` ${attribute(name)}="${escaped(String(value))}"`)
    .join('');
  const inside = [
    said === undefined ? '' : `<title>${escaped(said)}</title>`,
    text === undefined ? '' : escaped(text),
    ...(within ?? []).map(written),
  ].join('');
  return inside === '' ? `<${tag}${given}/>` : `<${tag}${given}>${inside}</${tag}>`;
}

/**
 * A picture as SVG text, on its own sheet.
 * @param style rules that stand in it: its fonts, where it is to be a file of its own
 */
export function svgOf(
  { width, height, marks }: Drawing,
  colours: Colours,
  faces: Faces = plainFaces,
  style = '',
): string {
  const sheet = `<rect width="${width}" height="${height}" fill="${colours.sheet}"/>`;
  const inside = marks.map((m) => written(shapeOf(m, (ink) => colours[ink], faces))).join('');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}">${style && `<style>${style}</style>`}${sheet}${inside}</svg>`;
}

import type { Drawing } from '~core/picture/marks';
import { paper } from '~core/picture/paper';
import { svgOf } from '~core/picture/shapes';
import { bytesOf } from '../download';
import { fonts } from '../colours';

const base64 = (bytes: Uint8Array): string => {
  let text = '';
  for (let i = 0; i < bytes.length; i += 8192) text += String.fromCharCode(...bytes.subarray(i, i + 8192));
  return btoa(text);
};

let rules: Promise<string> | null = null;

/** The app's own fonts as rules that stand inside a file: plain and italic-free, the Latin part. */
export const fontRules = (): Promise<string> => (rules ??= rulesNow());

async function rulesNow(): Promise<string> {
  const wanted = [fonts.serif, fonts.sans, fonts.mono].map((f) => f.split(',')[0]!.replaceAll('"', ''));
  const faces = [...document.styleSheets].flatMap((sheet) => {
    try {
      return [...sheet.cssRules].filter((r): r is CSSFontFaceRule => r instanceof CSSFontFaceRule);
    } catch {
      return [];
    }
  });
  const made: string[] = [];
  for (const family of wanted) {
    const own = faces.filter(
      ({ style }) =>
        style.getPropertyValue('font-family').replaceAll(/["']/g, '') === family &&
        !style.getPropertyValue('font-style').includes('italic') &&
        (style.getPropertyValue('unicode-range') || 'U+0-FF').toUpperCase().includes('U+0'),
    );
    const face = own.find((f) => /U\+0+-0*FF/i.test(f.style.getPropertyValue('unicode-range'))) ?? own[0];
    const url = face && /url\(["']?([^"')]+)/.exec(face.style.getPropertyValue('src'))?.[1];
    if (!face || !url) continue;
    const answer = await fetch(new URL(url, face.parentStyleSheet?.href ?? location.href));
    const bytes = new Uint8Array(await answer.arrayBuffer());
    made.push(
      `@font-face{font-family:"${family}";font-weight:${face.style.getPropertyValue('font-weight') || 400};src:url(data:font/woff2;base64,${base64(bytes)}) format("woff2")}`,
    );
  }
  return made.join('');
}

/** A picture as a file of its own, on paper: the day's colours, the app's fonts inside. */
export const svgFile = async (drawing: Drawing): Promise<string> =>
  svgOf(drawing, paper, fonts, await fontRules());

/** The same as a PNG. @param scale pixels a point */
export async function pngOf(drawing: Drawing, scale: number): Promise<Blob> {
  return new Blob([bytesOf(await pngUri(drawing, scale))], { type: 'image/png' });
}

/** The same as a data URI. */
export async function pngUri(drawing: Drawing, scale: number): Promise<string> {
  const image = new Image();
  const svg = await svgFile(drawing);
  image.src = `data:image/svg+xml;base64,${base64(new TextEncoder().encode(svg))}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [scale * drawing.width, scale * drawing.height];
  canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
  return canvas.toDataURL('image/png');
}

import { bytesOf } from '../download';
import { cssColour, withDayColours } from '../tesserae';
import { fonts } from '../colours';

const base64 = (bytes: Uint8Array): string => {
  let text = '';
  for (let i = 0; i < bytes.length; i += 8192) text += String.fromCharCode(...bytes.subarray(i, i + 8192));
  return btoa(text);
};

/** The app's own fonts as rules that stand inside a file: plain and italic-free, the Latin part. */
export async function fontRules(): Promise<string> {
  const wanted = [fonts.serif, fonts.sans, fonts.mono].map((f) => f.split(',')[0]!.replaceAll('"', ''));
  const faces = [...document.styleSheets].flatMap((sheet) => {
    try {
      return [...sheet.cssRules].filter((r): r is CSSFontFaceRule => r instanceof CSSFontFaceRule);
    } catch {
      return [];
    }
  });
  const rules: string[] = [];
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
    rules.push(
      `@font-face{font-family:"${family}";font-weight:${face.style.getPropertyValue('font-weight') || 400};src:url(data:font/woff2;base64,${base64(bytes)}) format("woff2")}`,
    );
  }
  return rules.join('');
}

/** A drawn picture as a file of its own: the day's colours written out, the app's fonts inside. */
export async function svgFile(drawn: SVGSVGElement): Promise<string> {
  const copy = drawn.cloneNode(true) as SVGSVGElement;
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  const style = document.createElementNS('http://www.w3.org/2000/svg', 'style');
  style.textContent = await fontRules();
  copy.prepend(style);
  const text = new XMLSerializer().serializeToString(copy);
  return withDayColours(() => text.replace(/var\((--[a-z0-9-]+)\)/g, (_, name: string) => cssColour(name)));
}

/** The same as a PNG, three pixels a point. */
export async function pngFile(drawn: SVGSVGElement): Promise<Blob> {
  const svg = await svgFile(drawn);
  const { width, height } = drawn.viewBox.baseVal;
  const image = new Image();
  image.src = `data:image/svg+xml;base64,${base64(new TextEncoder().encode(svg))}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [3 * width, 3 * height];
  const context = canvas.getContext('2d')!;
  context.fillStyle = withDayColours(() => cssColour('--sheet'));
  context.fillRect(0, 0, canvas.width, canvas.height);
  context.drawImage(image, 0, 0, canvas.width, canvas.height);
  return new Blob([bytesOf(canvas.toDataURL('image/png'))], { type: 'image/png' });
}

/** SVG text as a PNG of its own size. */
export async function pngOfText(svg: string, width: number, height: number): Promise<Blob> {
  const image = new Image();
  image.src = `data:image/svg+xml;base64,${base64(new TextEncoder().encode(svg))}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [width, height];
  canvas.getContext('2d')!.drawImage(image, 0, 0, width, height);
  return new Blob([bytesOf(canvas.toDataURL('image/png'))], { type: 'image/png' });
}

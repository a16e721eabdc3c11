import { inkOf } from '~core/picture/marks';
import { paper } from '~core/picture/paper';
import { tesseraStyle } from '~core/picture/tessera';

/** A treatment's tile as a picture of its own, in the day's colours, for paper. */
export function tesseraSvg(index: number): string {
  const { path } = tesseraStyle(index);
  const ink = paper[inkOf(index)];
  return (
    '<svg xmlns="http://www.w3.org/2000/svg" width="24" height="24" viewBox="0 0 24 24">' +
    '<defs><clipPath id="c"><rect x="1" y="1" width="22" height="22" rx="4"/></clipPath></defs>' +
    `<path d="${path}" fill="${ink}" fill-rule="evenodd" clip-path="url(#c)"/>` +
    `<rect x="1" y="1" width="22" height="22" rx="4" fill="none" stroke="${ink}" stroke-width="2"/></svg>`
  );
}

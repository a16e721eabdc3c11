import type { Page } from 'puppeteer-core';

/** Every view of the demo bench that is looked at for access and width. */
export const views = [
  '/',
  '/library',
  '/library/demo-duo',
  '/library/kit',
  '/trials/new',
  '/devices',
  '/data',
  '/settings',
  '/trial/demo-trial-cor/question',
  '/trial/demo-trial-cor/contenders',
  '/trial/demo-trial-cor/layout',
  '/trial/demo-trial-rad/layout?view=places',
  '/trial/demo-trial-rad/layout?view=light',
  '/trial/demo-trial-rad/layout?view=turns',
  '/trial/demo-trial-rad/layout?view=sizes',
  '/trial/demo-trial-rad/layout?view=planting',
  '/trial/demo-trial-rad/question',
  '/trial/demo-trial-rad/contenders',
  '/trial/demo-trial-rad/fairness',
  '/trial/demo-trial-rad/rehearsal',
  '/trial/demo-trial-rad/labels',
  '/trial/demo-trial-rad/card',
  '/trial/demo-trial-fag/layout',
  '/trial/demo-trial-fag/rounds',
  '/trial/demo-trial-fag/findings',
  '/trial/demo-trial-fag/verdict',
  '/trial/demo-trial-fag/review',
  '/trial/demo-trial-cor/labels',
  '/calculator',
  '/instruments',
  '/trial/demo-trial-par/mixing?bottle=D',
  '/trial/demo-trial-par/mixing?view=compare',
  '/trial/demo-trial-par/mixing?view=programme',
  '/trial/demo-trial-par/mixing?view=reservoirs',
  '/trial/demo-trial-par/mixing?view=stock',
  '/trial/demo-trial-par/mixing?view=setup',
  '/trial/demo-trial-par/mixing-card',
  '/trial/demo-trial-par/rounds',
  '/trial/demo-trial-par/rounds?view=tasks',
  '/trial/demo-trial-par/rounds?view=photos',
  '/trial/demo-trial-par/rounds?view=air',
  '/trial/demo-trial-par/rounds?view=events',
  '/trial/demo-trial-par/weigh-in',
  '/trial/demo-trial-cor/findings',
  '/trial/demo-trial-sun/findings',
  '/trial/demo-trial-cor/verdict',
  '/trial/demo-trial-cor/verdict?view=card',
  '/trial/demo-trial-cor/verdict?view=claims',
  '/trial/demo-trial-cor/verdict?view=cost',
  '/trial/demo-trial-cor/findings?trait=demo-COR-trait-height&view=time',
  '/trial/demo-trial-cor/findings?view=looks',
  '/trial/demo-trial-cor/findings?view=traits',
  '/trial/demo-trial-pom/findings?trait=demo-POM-trait-share',
  '/standings',
  '/season',
  '/eye',
  '/eye?game=fault',
  '/table',
  '/trial/demo-trial-cor/review',
  '/trial/demo-trial-cor/log',
  '/trial/demo-trial-pom/weigh-in',
  '/trial/demo-trial-cor/panel',
  '/trial/demo-trial-par/panel',
  '/trial/demo-trial-par/panel?view=plan',
  '/trial/demo-trial-par/servers-card/demo-panel-PAR',
  '/trial/demo-trial-par/score-sheets/demo-panel-PAR',
  '/trial/demo-trial-par/taste/demo-panel-PAR/1',
];

/** How wide the page is as painted: what follows the width has had its frame. */
export const neededWidth = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<number>((done) =>
        requestAnimationFrame(() => requestAnimationFrame(() => done(document.documentElement.scrollWidth))),
      ),
  );

/** Fields on a page that have no room for four figures (32 px), with what there is. */
export const crampedFields = (page: Page): Promise<string[]> =>
  page.$$eval('input:not([type]), input[type="text"], textarea', (fields) =>
    fields.flatMap((field) => {
      const { paddingLeft, paddingRight } = getComputedStyle(field);
      const room = field.clientWidth - parseFloat(paddingLeft) - parseFloat(paddingRight);
      // Where a day is typed part by part the field itself is out of sight.
      const shown =
        field.checkVisibility() && !field.closest('[aria-hidden="true"]') && field.clientWidth > 1;
      return shown && room < 32 ? [`${field.labels?.[0]?.textContent || field.name}: ${room} px`] : [];
    }),
  );

/** Words in pictures that are painted smaller than 9 px, with their size. */
export const smallPrint = (page: Page): Promise<string[]> =>
  page.$$eval('main svg text', (words) =>
    (words as SVGTextElement[]).flatMap((word) => {
      const size = parseFloat(getComputedStyle(word).fontSize) * (word.getScreenCTM()?.a ?? 1);
      return word.checkVisibility() && size < 9 ? [`${word.textContent}: ${size.toFixed(1)} px`] : [];
    }),
  );

/** Parts of a page that would have to be pushed sideways to be read whole, with how wide they are. */
export const sideways = (page: Page): Promise<string[]> =>
  page.$$eval('main *', (all) =>
    all.flatMap((e) => {
      const scrolls = /auto|scroll/.test(getComputedStyle(e).overflowX) && e.clientWidth > 1;
      const hides = scrolls && !e.matches('input, textarea') && e.scrollWidth > e.clientWidth + 4;
      return hides ? [`${e.className}: ${e.scrollWidth} px in ${e.clientWidth}`] : [];
    }),
  );

import type { Plan } from '~core/model/plan';
import { type SizeUnits, sizeUnitsOf } from '~core/quantity/sizeText';
import {
  type Paper,
  type UnitChoice,
  currencyOf,
  degreesOf,
  paperOf,
  unitChoiceIds,
  unitChoices,
  unitsOf,
} from '~core/quantity/regionUnits';
import {
  type FigureRegion,
  figureRegionIds,
  figureRegions,
  setFigures,
  setTemperatureUnit,
} from '~core/quantity/region';

/** How this device writes figures, days and times; kept in this browser, like its light. */
export interface Region {
  /** null: as the browser's language has it */
  figures: FigureRegion | null;
  /** null: as the region has it */
  hours: 12 | 24 | null;
  /** first day of a week, 0 Sunday; null: as the region has it */
  weekStart: 0 | 1 | 6 | null;
  /**
   * sizes and measures a new trial begins with, and the degrees of temperatures; null: as the trial before, else as
   * the region has them
   */
  units: UnitChoice | null;
}

const KEY = 'palazzo/region';
const byItself: Region = { figures: null, hours: null, weekStart: null, units: null };

/** What was chosen on this device. */
export function chosenRegion(): Region {
  try {
    const stored = JSON.parse(localStorage.getItem(KEY) ?? 'null') as Partial<Region> | null;
    return {
      figures: figureRegionIds.find((id) => id === stored?.figures) ?? null,
      hours: stored?.hours === 12 || stored?.hours === 24 ? stored.hours : null,
      weekStart:
        stored?.weekStart === 0 || stored?.weekStart === 1 || stored?.weekStart === 6
          ? stored.weekStart
          : null,
      units: unitChoiceIds.find((id) => id === stored?.units) ?? null,
    };
  } catch {
    return byItself;
  }
}

const browserLanguage = () => globalThis.navigator?.language ?? 'en-GB';

/**
 * The region whose figures fit a browser's language best: its own, else one that writes decimals and days alike.
 * @example figuresOf('it-IT') // 'fr-FR': a decimal comma, 27/11/2026
 */
export function figuresOf(language: string): FigureRegion {
  const own = figureRegionIds.find((id) => id === language);
  if (own) return own;
  if (language.startsWith('en')) return language === 'en-US' || language === 'en' ? 'en-US' : 'en-GB';
  const [comma, day] = [
    new Intl.NumberFormat(language).format(1.5).includes(','),
    new Intl.DateTimeFormat(language, { day: '2-digit', month: '2-digit', year: 'numeric' }).format(
      new Date(2026, 10, 27),
    ),
  ];
  if (/^2026/.test(day)) return comma ? 'sv-SE' : 'plain';
  if (day.includes('/')) return comma ? 'fr-FR' : 'en-GB';
  return comma ? 'de-DE' : 'de-CH';
}

/** The locale days and times are written in here: words stay English. */
export function dayLocale(): string {
  const { figures } = chosenRegion();
  if (figures === null) {
    const language = browserLanguage();
    return language.startsWith('en') ? language : 'en-GB';
  }
  return figures === 'en-US' ? 'en-US' : 'en-GB';
}

/** Whether hours go to twelve; undefined: as the locale has it. */
export function hour12(): boolean | undefined {
  const { hours } = chosenRegion();
  return hours === null ? undefined : hours === 12;
}

/** First day of a week here, 0 Sunday (CLDR by the browser; Monday where it doesn't say, ISO 8601). */
export function weekStart(): number {
  const { weekStart: chosen, figures } = chosenRegion();
  if (chosen !== null) return chosen;
  const asked = figures === null ? browserLanguage() : (figureRegions[figures].locale ?? 'en-GB');
  const locale = new Intl.Locale(asked) as Intl.Locale & {
    getWeekInfo?: () => { firstDay: number };
    weekInfo?: { firstDay: number };
  };
  const firstDay = (locale.getWeekInfo?.() ?? locale.weekInfo)?.firstDay ?? 1;
  return firstDay % 7;
}

/** A time of day as it is written here. @param time HH:MM @example clockText('14:05') // '2:05 pm' where hours go to 12 */
export function clockText(time: string): string {
  if (!/^\d{2}:\d{2}$/.test(time)) return time;
  return new Intl.DateTimeFormat(dayLocale(), {
    timeZone: 'UTC',
    hour: 'numeric',
    minute: '2-digit',
    hour12: hour12() ?? false,
  }).format(new Date(`2026-01-01T${time}:00Z`));
}

/** Takes what was chosen, or what the browser says, for every figure from now on. */
export function applyRegion(): void {
  const { figures, units } = chosenRegion();
  setFigures(figures ?? figuresOf(browserLanguage()));
  setTemperatureUnit(units === null ? degreesOf(browserLanguage()) : unitChoices[units].degrees);
}

/** Chooses for this device. */
export function chooseRegion(region: Region): void {
  localStorage.setItem(KEY, JSON.stringify(region));
  applyRegion();
}

/**
 * The order in which a day is written in figures here, for the fields it is typed into.
 * @example dayFormat() // 'DD/MM/YYYY', 'MM/DD/YYYY', 'YYYY-MM-DD' …
 */
export function dayFormat(): string {
  const { figures } = chosenRegion();
  const locale =
    figures === null
      ? browserLanguage()
      : // Sweden writes days as ISO 8601 does.
        (figureRegions[figures].locale ?? 'sv-SE');
  const written = { year: 'YYYY', month: 'MM', day: 'DD' } as Record<string, string>;
  return new Intl.DateTimeFormat(locale, {
    ...{ timeZone: 'UTC', year: 'numeric', month: '2-digit', day: '2-digit' },
    ...{ calendar: 'gregory', numberingSystem: 'latn' },
  })
    .formatToParts(Date.UTC(2026, 10, 27))
    .map(({ type, value }) => written[type] ?? (type === 'literal' ? value.replace(/[^./ -]/g, '') : ''))
    .join('')
    .trim();
}

/** Sizes and measures a new trial begins with: as chosen on this device, else as before, else as the region has them. */
export function unitsHere(before?: Pick<Plan, 'inches' | 'mixing'>): SizeUnits {
  const { units } = chosenRegion();
  if (units !== null) return unitChoices[units];
  return before ? sizeUnitsOf(before) : unitsOf(browserLanguage());
}

/** The paper that is printed on here: as units were chosen, else as the region has it. */
export function paperHere(): Paper {
  const { units } = chosenRegion();
  if (units !== null) return units === 'us' ? 'Letter' : 'A4';
  return paperOf(browserLanguage());
}

/** The currency prices are in here, where none was written yet. */
export const currencyHere = (): string => currencyOf(browserLanguage());

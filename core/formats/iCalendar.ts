import ICAL from 'ical.js';

/** One act on a date, as a calendar takes it. */
export interface CalendarEvent {
  /** stays the same for the same act, so that reading a file in again brings it up to date */
  uid: string;
  date: string;
  /** HH:MM by the clock on the wall; null: the whole day */
  at: string | null;
  minutes: number;
  summary: string;
  description: string;
  location: string;
}

// A folded line begins with a blank, which counts.
ICAL.foldLength = 74;

const DAY_MS = 86_400_000;

/** Minutes by which a time zone is ahead of UTC at a moment. @example offsetAt('Europe/Berlin', Date.UTC(2026, 6, 1)) // 120 */
export function offsetAt(timeZone: string, ms: number): number {
  const parts = new Intl.DateTimeFormat('en-US', {
    timeZone,
    hourCycle: 'h23',
    year: 'numeric',
    month: 'numeric',
    day: 'numeric',
    hour: 'numeric',
    minute: 'numeric',
    second: 'numeric',
  }).formatToParts(ms);
  const get = (type: string) => Number(parts.find((p) => p.type === type)!.value);
  const wall = Date.UTC(get('year'), get('month') - 1, get('day'), get('hour'), get('minute'), get('second'));
  return Math.round((wall - Math.floor(ms / 1000) * 1000) / 60_000);
}

/** Moments between two at which a zone's clock is put on or back, to the minute. */
export function transitions(
  timeZone: string,
  from: number,
  to: number,
): { at: number; before: number; after: number }[] {
  const changes: { at: number; before: number; after: number }[] = [];
  for (let day = from; day < to; day += DAY_MS) {
    const [before, after] = [offsetAt(timeZone, day), offsetAt(timeZone, day + DAY_MS)];
    if (before === after) continue;
    let [low, high] = [day, day + DAY_MS];
    while (high - low > 60_000) {
      const middle = Math.floor((low + high) / 2 / 60_000) * 60_000;
      if (offsetAt(timeZone, middle) === before) low = middle;
      else high = middle;
    }
    changes.push({ at: high, before, after });
  }
  return changes;
}

const utcOffset = (minutes: number) =>
  new ICAL.UtcOffset({
    hours: Math.floor(Math.abs(minutes) / 60),
    minutes: Math.abs(minutes) % 60,
    factor: minutes < 0 ? -1 : 1,
  });

const localTime = (ms: number) => {
  const d = new Date(ms);
  return new ICAL.Time(
    {
      year: d.getUTCFullYear(),
      month: d.getUTCMonth() + 1,
      day: d.getUTCDate(),
      hour: d.getUTCHours(),
      minute: d.getUTCMinutes(),
      second: 0,
      isDate: false,
    },
    ICAL.Timezone.localTimezone,
  );
};

/** What a calendar has to know of a zone: its offset at the start, and each change until the end. */
function zoneOf(timeZone: string, from: number, to: number) {
  const zone = new ICAL.Component('vtimezone');
  zone.updatePropertyWithValue('tzid', timeZone);
  const first = offsetAt(timeZone, from);
  const changes = [{ at: from, before: first, after: first }, ...transitions(timeZone, from, to)];
  const usual = Math.min(...changes.map((c) => c.after));
  for (const { at, before, after } of changes) {
    const part = new ICAL.Component(after > usual ? 'daylight' : 'standard');
    part.updatePropertyWithValue('dtstart', localTime(at + before * 60_000));
    part.updatePropertyWithValue('tzoffsetfrom', utcOffset(before));
    part.updatePropertyWithValue('tzoffsetto', utcOffset(after));
    zone.addSubcomponent(part);
  }
  return zone;
}

/** Line ends as the writer escapes them; other control signs have no place in a calendar. */
const plainLines = (text: string): string =>
  // oxlint-disable-next-line no-control-regex
  text.replace(/\r\n?/g, '\n').replace(/[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f\u2028\u2029]/g, ' ');
const oneLine = (text: string): string => plainLines(text).replace(/\s*\n\s*/g, ' ');

/** Whole days are reminded of in the evening before, times a quarter of an hour before. */
const ALARM_DAY = '-PT5H';
const ALARM_TIME = '-PT15M';

/**
 * Acts as an iCalendar file (RFC 5545). The same act has the same UID in every file, with a SEQUENCE that grows with
 * time, so a calendar that reads a newer file moves it instead of doubling it.
 *
 * @param timeZone IANA name of the zone the clock on the wall shows, e.g. Europe/Berlin
 * @param now ms since 1970, when the file is made
 * @returns the file's text, lines ended and folded as the standard asks
 */
export function toICalendar(
  events: readonly CalendarEvent[],
  { timeZone, now, name }: { timeZone: string; now: number; name: string },
): string {
  const calendar = new ICAL.Component(['vcalendar', [], []]);
  calendar.updatePropertyWithValue('prodid', '-//Palazzo//bench//EN');
  calendar.updatePropertyWithValue('version', '2.0');
  calendar.updatePropertyWithValue('calscale', 'GREGORIAN');
  calendar.updatePropertyWithValue('method', 'PUBLISH');
  // Not of RFC 5545: what its text is has to be said, or the writer doesn't escape it.
  calendar.addProperty(new ICAL.Property(['x-wr-calname', {}, 'text', oneLine(name)]));
  const timed = events.filter((e) => e.at !== null).map((e) => Date.parse(`${e.date}T00:00:00Z`));
  if (timed.length > 0) {
    calendar.addSubcomponent(zoneOf(timeZone, Math.min(...timed) - DAY_MS, Math.max(...timed) + 2 * DAY_MS));
  }
  for (const e of events) {
    const event = new ICAL.Component('vevent');
    event.updatePropertyWithValue('uid', e.uid);
    event.updatePropertyWithValue('dtstamp', ICAL.Time.fromJSDate(new Date(now), true));
    event.updatePropertyWithValue('sequence', Math.floor(now / 60_000) % 2 ** 31);
    if (e.at === null) {
      event.updatePropertyWithValue('dtstart', ICAL.Time.fromDateString(e.date));
    } else {
      const start = event.updatePropertyWithValue(
        'dtstart',
        ICAL.Time.fromDateTimeString(`${e.date}T${e.at}:00`),
      );
      start.setParameter('tzid', timeZone);
      event.updatePropertyWithValue('duration', ICAL.Duration.fromSeconds(Math.max(1, e.minutes) * 60));
    }
    event.updatePropertyWithValue('summary', oneLine(e.summary));
    if (e.description) event.updatePropertyWithValue('description', plainLines(e.description));
    if (e.location) event.updatePropertyWithValue('location', oneLine(e.location));
    event.updatePropertyWithValue('transp', 'TRANSPARENT');
    const alarm = new ICAL.Component('valarm');
    alarm.updatePropertyWithValue('action', 'DISPLAY');
    alarm.updatePropertyWithValue('description', oneLine(e.summary));
    alarm.updatePropertyWithValue(
      'trigger',
      ICAL.Duration.fromString(e.at === null ? ALARM_DAY : ALARM_TIME),
    );
    event.addSubcomponent(alarm);
    calendar.addSubcomponent(event);
  }
  return `${calendar.toString()}\r\n`;
}

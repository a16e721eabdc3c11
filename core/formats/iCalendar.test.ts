// RFC 5545, read back by its own parser package. Summer time of Berlin 2026: 29 March and 25 October, 01:00 UTC
// (Directive 2000/84/EC: last Sundays, from memory).
import ICAL from 'ical.js';
import { describe, expect, it } from 'vitest';
import { offsetAt, toICalendar, transitions } from './iCalendar';

const event = (over = {}) => ({
  uid: 'trial-1-round-2@palazzo',
  date: '2026-03-30',
  at: null,
  minutes: 20,
  summary: 'Round 3: height, leaf count',
  description: 'Ruler; all on one day, “in order”. Line\nbreak, comma; semicolon',
  location: 'Shelf in the hall',
  ...over,
});
const made = (events = [event()], timeZone = 'Europe/Berlin', now = Date.UTC(2026, 2, 1)) =>
  toICalendar(events, { timeZone, now, name: 'Bench' });
const read = (text: string) => new ICAL.Component(ICAL.parse(text) as never);

describe('a calendar file', () => {
  it('is read back by a parser, word for word', () => {
    const [e] = read(made()).getAllSubcomponents('vevent');
    const back = new ICAL.Event(e!);
    expect(back.uid).toBe('trial-1-round-2@palazzo');
    expect(back.summary).toBe('Round 3: height, leaf count');
    expect(back.description).toBe(event().description);
    expect(back.location).toBe('Shelf in the hall');
    expect(back.startDate.isDate).toBe(true);
    expect(back.startDate.toString()).toBe('2026-03-30');
    expect(e!.getFirstSubcomponent('valarm')!.getFirstPropertyValue('trigger')!.toString()).toBe('-PT5H');
  });
  it('ends and folds its lines as the standard asks', () => {
    const text = made([event({ summary: 'x'.repeat(200) })]);
    expect(text.endsWith('END:VCALENDAR\r\n')).toBe(true);
    for (const line of text.split('\r\n')) {
      expect(line).not.toContain('\n');
      expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75);
    }
  });
  it('has a time by the clock on the wall, on both sides of summer time', () => {
    const days = ['2026-03-28', '2026-03-29', '2026-10-24', '2026-10-25', '2026-10-26'];
    const calendar = read(made(days.map((date) => event({ uid: date, date, at: '07:30' }))));
    const zone = new ICAL.Timezone(calendar.getFirstSubcomponent('vtimezone')!);
    const utc = calendar.getAllSubcomponents('vevent').map((e) => {
      const start = new ICAL.Event(e).startDate;
      start.zone = zone;
      return start.toJSDate().toISOString().slice(11, 16);
    });
    expect(utc).toEqual(['06:30', '05:30', '05:30', '06:30', '06:30']);
  });
  it('gives the same act the same UID later, with a higher sequence', () => {
    const of = (now: number, date: string) => {
      const e = read(made([event({ date })], 'UTC', now)).getFirstSubcomponent('vevent')!;
      return [e.getFirstPropertyValue('uid'), Number(e.getFirstPropertyValue('sequence'))] as const;
    };
    const [first, later] = [of(Date.UTC(2026, 2, 1), '2026-03-30'), of(Date.UTC(2026, 2, 2), '2026-04-02')];
    expect(later[0]).toBe(first[0]);
    expect(later[1]).toBeGreaterThan(first[1]);
  });
  it('of no act is a calendar all the same', () => {
    expect(read(made([])).getAllSubcomponents('vevent')).toEqual([]);
  });
});

describe('time zones', () => {
  it('change when and by how much they do', () => {
    expect(transitions('Europe/Berlin', Date.UTC(2026, 0, 1), Date.UTC(2027, 0, 1))).toEqual([
      { at: Date.UTC(2026, 2, 29, 1), before: 60, after: 120 },
      { at: Date.UTC(2026, 9, 25, 1), before: 120, after: 60 },
    ]);
    expect(offsetAt('America/Los_Angeles', Date.UTC(2026, 0, 1))).toBe(-480);
    expect(offsetAt('Asia/Kolkata', Date.UTC(2026, 0, 1))).toBe(330);
    expect(transitions('Asia/Kolkata', Date.UTC(2026, 0, 1), Date.UTC(2027, 0, 1))).toEqual([]);
  });
});

it('no text writes lines of its own, whatever ends its lines', () => {
  const evil = 'Which?\r\nBEGIN:VEVENT\rX-EVIL:1\nSUMMARY:x\u0000\u2028y';
  const text = toICalendar([event({ summary: evil, description: evil, location: evil })], {
    ...{ timeZone: 'Europe/Berlin', now: Date.UTC(2026, 2, 1), name: evil },
  });
  expect(text.match(/^BEGIN:VEVENT/gm)).toHaveLength(1);
  expect(text).not.toMatch(/^(X-EVIL|SUMMARY:x)/m);
  for (const sign of ['\r', '\n', '\u0000', '\u2028'])
    expect(text.replaceAll('\r\n', '')).not.toContain(sign);
  const back = read(text);
  expect(back.getFirstPropertyValue('x-wr-calname')).toBe('Which? BEGIN:VEVENT X-EVIL:1 SUMMARY:x  y');
  expect(back.getAllSubcomponents('vevent')).toHaveLength(1);
});

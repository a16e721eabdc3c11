import dayjs from 'dayjs';
import { benchTrials } from './benchTrials';
import { type Act, actsOf, actsOn, dayWords } from './acts';
import { todayDate } from '../ui/clock';
import { REMIND_KEY } from './remindKey';

const EVERY_MS = 60_000;
/** When a day's acts without a time are told of. */
const MORNING = '08:00';

let timer: ReturnType<typeof setInterval> | null = null;
const told = new Set<string>();

export const isReminding = (): boolean =>
  typeof Notification !== 'undefined' &&
  Notification.permission === 'granted' &&
  localStorage.getItem(REMIND_KEY) === 'yes';

/**
 * What to tell of at a time of day: acts whose time came within the last ten minutes, and in the morning the day.
 * @param now HH:MM
 * @returns what wasn't told before
 */
export function dueReminders(acts: readonly Act[], today: string, now: string, before: ReadonlySet<string>) {
  const minutes = (t: string) => Number(t.slice(0, 2)) * 60 + Number(t.slice(3));
  const just = (t: string) => minutes(now) >= minutes(t) && minutes(now) < minutes(t) + 10;
  const open = actsOn(acts, today, today).filter((a) => a.state === 'open');
  return [
    ...open
      .filter((a) => a.at !== null && a.date === today && just(a.at))
      .map((a) => ({
        id: `${today}/${a.trialId}/${a.id}`,
        title: a.what,
        body: `${a.place} · ${a.question}`,
      })),
    ...(just(MORNING) && open.length > 0
      ? [
          {
            id: `${today}/morning`,
            title: `Today: ${dayWords(open)}`,
            body: open.map((a) => a.what).join('; '),
          },
        ]
      : []),
  ].filter((r) => !before.has(r.id));
}

async function look(): Promise<void> {
  const today = todayDate();
  const { active } = await benchTrials(today);
  for (const r of dueReminders(actsOf(active, today, today), today, dayjs().format('HH:mm'), told)) {
    told.add(r.id);
    new Notification(r.title, { body: r.body, tag: r.id });
  }
}

/** Goes on reminding in a new page, where the user asked for it before. */
export function keepReminding(): void {
  if (timer !== null || !isReminding()) return;
  timer = setInterval(() => void look(), EVERY_MS);
  void look();
}

/** Asks the browser, and reminds from now on. @returns whether it may */
export async function startReminding(): Promise<boolean> {
  if ((await Notification.requestPermission()) !== 'granted') return false;
  localStorage.setItem(REMIND_KEY, 'yes');
  keepReminding();
  return true;
}

export function stopReminding(): void {
  localStorage.removeItem(REMIND_KEY);
  if (timer !== null) clearInterval(timer);
  timer = null;
}

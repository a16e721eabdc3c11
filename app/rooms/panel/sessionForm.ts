import { z } from 'zod';
import type { TrialState } from '~core/log/state';
import {
  type PanelAttribute,
  type PanelKind,
  type PanelSample,
  asksScores,
  asksTwo,
  panelKinds,
  presentations,
  senses,
  usualLiking,
  usualWords,
} from '~core/model/panel';
import type { PanelId } from '~core/model/ids';
import { newId } from '~core/model/newId';
import type { Result } from '~core/model/result';
import { type SessionDraft, type PlannedSession, draftFaults, planSession } from '~core/sensory/planSession';
import { sessionsOf } from '~core/sensory/sessions';
import { numberIn } from '~core/quantity/number';
import { livingUnits } from '~core/log/asked';
import type { FieldErrors } from '../../form/schemaFields';
import { parseScale, scaleToText } from '../question/writtenScale';
import type { Photo } from '../rounds/photos/photoData';
import { cautionsFor } from './cautions';

/** How many samples there are of a contender. */
export const samplings = {
  pooled: 'one of each contender, its units mixed',
  twice: 'two of each contender, to see whether tasters repeat themselves',
  units: 'one of each unit',
} as const;
type Sampling = keyof typeof samplings;

export const SessionForm = z.object({
  intent: z.literal('start'),
  name: z.string(),
  senses: z.record(z.enum(senses), z.boolean()),
  presented: z.enum(Object.keys(presentations) as (keyof typeof presentations)[]),
  kind: z.enum(Object.keys(panelKinds) as PanelKind[]),
  /** by treatment id */
  contenders: z.record(z.string(), z.boolean()),
  sampling: z.enum(Object.keys(samplings) as Sampling[]),
  tasters: z.string(),
  repeats: z.string(),
  asked: z.string(),
  attributes: z.array(
    z.object({ name: z.string(), scaleText: z.string(), better: z.enum(['more', 'less', 'neither']) }),
  ),
  words: z.string(),
  guess: z.enum(['none', 'same', 'which']),
  /** by the caution's place in the list */
  read: z.array(z.boolean()),
});
export type SessionForm = z.infer<typeof SessionForm>;

const listed = (text: string): string[] =>
  text
    .split(/[\n,;]/)
    .map((t) => t.trim())
    .filter((t) => t !== '');

export const blankAttribute = (): SessionForm['attributes'][number] => ({
  name: '',
  scaleText: '1 not at all\n2\n3\n4\n5 very much',
  better: 'neither',
});

const isTaken = (state: TrialState, name: string): boolean =>
  sessionsOf(state).some((h) => h.session.name.trim().toLowerCase() === name.trim().toLowerCase());

/** A name no session has yet. @example 'Tasting, day 9, second' */
function freeName(state: TrialState, name: string): string {
  for (let n = 1; ; n++) {
    const numbered = n === 1 ? name : `${name} (${n})`;
    if (!isTaken(state, numbered)) return numbered;
  }
}

/** A form as it opens: one tasting of all contenders on a scale of liking. */
export const blankSession = (state: TrialState, day: number): SessionForm => ({
  intent: 'start',
  name: freeName(state, `Tasting, day ${day}`),
  senses: { taste: true, smell: false, crunch: false, look: false },
  presented: 'cups',
  kind: 'liking',
  contenders: Object.fromEntries(state.plan.treatments.map((t) => [t.id, true])),
  sampling: 'pooled',
  tasters: '',
  repeats: '2',
  asked: '',
  attributes: [{ name: usualLiking.name, scaleText: scaleToText(usualLiking.steps), better: 'more' }],
  words: usualWords.join(', '),
  guess: 'none',
  read: [],
});

/** The senses that are ticked. */
export const sensesOf = (form: Pick<SessionForm, 'senses'>) => senses.filter((s) => form.senses[s]);

/** Samples the form asks for, from the units that live; of photos the newest of each unit. */
function samplesOf(state: TrialState, form: SessionForm, photos: readonly Photo[]): PanelSample[] {
  const asPhotos = form.presented === 'photos';
  const photoOf = (unitId: string) => photos.findLast((p) => p.unitId === unitId)?.sha256 ?? null;
  return state.plan.treatments
    .filter((t) => form.contenders[t.id])
    .flatMap((t): PanelSample[] => {
      const units = livingUnits(state).filter(
        (u) => u.treatmentId === t.id && (!asPhotos || photoOf(u.id) !== null),
      );
      if (units.length === 0) return [];
      const single = (id: (typeof units)[number]['id']): PanelSample => ({
        treatmentId: t.id,
        unitIds: [id],
        photo: asPhotos ? photoOf(id) : null,
      });
      if (form.sampling === 'units' && !asksTwo(form.kind)) return units.map((u) => single(u.id));
      // A photo and a unit as it stands can't be mixed: one unit stands for each sample.
      const twice = form.sampling === 'twice' && !asksTwo(form.kind);
      if (asPhotos || form.presented === 'units')
        return units.slice(0, twice ? 2 : 1).map((u) => single(u.id));
      const pooled = { treatmentId: t.id, unitIds: units.map((u) => u.id), photo: null };
      return twice ? [pooled, pooled] : [pooled];
    });
}

const attributesOf = (form: SessionForm): PanelAttribute[] =>
  asksScores(form.kind)
    ? form.attributes.map((a) => ({
        name: a.name,
        steps: parseScale(a.scaleText),
        moreIsBetter: a.better === 'neither' ? null : a.better === 'more',
      }))
    : [];

/** Faults of fields that belong to the form alone. */
function ownFaults(form: SessionForm): FieldErrors {
  const faults: FieldErrors = {};
  if (asksScores(form.kind)) {
    form.attributes.forEach((a, i) => {
      if (a.name.trim() === '') faults[`attributes.${i}.name`] = 'Name what is scored.';
      const steps = parseScale(a.scaleText);
      const values = steps.map((s) => s.value);
      if (steps.length < 2 || steps.length > 11)
        faults[`attributes.${i}.scaleText`] = 'Two to eleven steps, one a line.';
      else if (new Set(values).size < values.length)
        faults[`attributes.${i}.scaleText`] = 'A step is there twice.';
    });
  }
  listed(form.words).forEach((w) => {
    if (w.length > 30) faults.words = `“${w}” is longer than 30 letters.`;
  });
  const wanted = cautionsFor(sensesOf(form));
  if (wanted.some((_, i) => !form.read[i]))
    faults.read = 'Read and tick each of them first; when in doubt, don’t taste.';
  return faults;
}

/** Where the core's faults stand on the form. */
const fieldOf: Record<string, string> = {
  samples: 'contenders',
  attributes: 'attributes.0.name',
  senses: 'senses',
};

/**
 * Draws the session a form asks for, from the trial as it is stored.
 * @param chance seed and salt that nobody can guess
 */
export function sessionOfForm(
  state: TrialState,
  form: SessionForm,
  photos: readonly Photo[],
  chance: { seed: number; salt: string },
): Result<PlannedSession, FieldErrors> {
  const own = ownFaults(form);
  if (isTaken(state, form.name))
    own.name = 'Another session has this name; two of one name can’t be told apart.';
  const asked = form.kind === 'ranking' && form.asked.trim() === '' ? 'From best to worst' : form.asked;
  const draft: SessionDraft = {
    id: newId<PanelId>(),
    name: form.name,
    kind: form.kind,
    presented: form.presented,
    senses: sensesOf(form),
    asked,
    attributes: attributesOf(form),
    words: listed(form.words),
    tasters: listed(form.tasters),
    samples: samplesOf(state, form, photos),
    repeats: numberIn(form.repeats) ?? 0,
    guess: asksTwo(form.kind) ? 'none' : form.guess,
    cautions: [...cautionsFor(sensesOf(form))],
  };
  const onForm = (faults: object): FieldErrors =>
    Object.fromEntries(Object.entries(faults).map(([k, v]) => [fieldOf[k] ?? k, v]));
  // All of them at once, not one after the other.
  const faults = { ...onForm(draftFaults(draft)), ...own };
  if (Object.keys(faults).length > 0) return { ok: false, error: faults };
  const made = planSession(draft, chance.seed, chance.salt);
  return made.ok ? made : { ok: false, error: onForm(made.error) };
}

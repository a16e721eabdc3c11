import { blankTreatment } from '../model/blankPlan';
import { type Treatment, doseAmount } from '../model/plan';
import { comparesPeers, controlOf, countedFrom } from '../plan/control';
import { sayObtained, undisclosed } from '../plan/disclosure';
import { comparesFeeds, groupsOf, type Rule } from './rule';

const peersOnly: Rule = {
  id: 'peers-only',
  severity: 'note',
  title: 'Equals, and no control',
  why: 'Whichever comes first: whether any is better than nothing can’t be told.',
  check: ({ plan }) =>
    comparesPeers(plan)
      ? {
          found: `${plan.treatments.map((t) => t.name).join(', ')}: none is a control.`,
          cure: 'Say so in the review; or add what people use now as a reference.',
          room: 'contenders',
        }
      : null,
};

const noControl: Rule = {
  id: 'no-control',
  severity: 'breaks',
  title: 'No control',
  why: 'A product can do worse than nothing; without a control nobody sees it.',
  check: ({ plan }) =>
    countedFrom(plan)
      ? null
      : {
          found: 'No treatment is a control: untreated, base alone or a reference.',
          cure: 'Add one with the same water and nothing else.',
          room: 'contenders',
          fix: {
            label: 'Add water as control',
            apply: () => {
              const like = plan.treatments[0];
              const water = blankTreatment('Water', 'untreated');
              const same = like
                ? {
                    container: like.container,
                    medium: like.medium,
                    light: like.light,
                    system: like.system,
                    water: like.water,
                    conditions: like.conditions,
                  }
                : {};
              return { plan: { ...plan, treatments: [{ ...water, ...same }, ...plan.treatments] } };
            },
          },
        },
};

/**
 * The same products at the same rates, whatever their order: by area where units have one, so that strips of
 * different size with one rate are alike.
 */
const usesKey = (t: Treatment, without: ReadonlySet<string>) => {
  const area = t.conditions.areaPerUnitCm2 ?? 1;
  const byArea = (x: number) => Number((x / area).toPrecision(6));
  return t.products
    .filter((u) => !without.has(u.productId))
    .map((u) => {
      const litres = u.solutionLPerUnit;
      const dose = Number(doseAmount(u).toPrecision(6));
      return `${u.productId}/${litres === null ? byArea(dose) : dose}/${u.unit}/${litres === null ? '' : byArea(litres)}`;
    })
    .sort()
    .join(';');
};

const additiveWithoutBase: Rule = {
  id: 'additive-without-base',
  severity: 'breaks',
  title: 'An additive without its base alone',
  why: 'Base and additive against water shows what both do together, not what the additive adds.',
  check: ({ plan }) => {
    // Equals ask which is best, not what an additive adds; one that all get is part of the base.
    if (comparesPeers(plan)) return null;
    const inAll = (id: string) => plan.treatments.every((t) => t.products.some((u) => u.productId === id));
    const additives = new Set<string>(
      plan.products.filter((p) => p.category === 'additive' && !inAll(p.id)).map((p) => p.id),
    );
    const bare = plan.treatments.filter((t) => {
      const has = t.products.some((u) => additives.has(u.productId));
      const rest = usesKey(t, additives);
      return has && rest !== '' && !plan.treatments.some((o) => o !== t && usesKey(o, new Set()) === rest);
    });
    const [first] = bare;
    if (!first) return null;
    return {
      found: `${bare.map((t) => t.name).join(', ')}: no treatment has the base alone.`,
      cure: 'Add the base alone as a control.',
      room: 'contenders',
      fix: {
        label: 'Add the base alone',
        apply: () => {
          const base: Treatment = {
            ...first,
            ...blankTreatment('Base alone', 'base'),
            container: first.container,
            medium: first.medium,
            light: first.light,
            system: first.system,
            water: first.water,
            conditions: first.conditions,
            products: first.products.filter((u) => !additives.has(u.productId)),
          };
          return { plan: { ...plan, treatments: [base, ...plan.treatments] } };
        },
      },
    };
  },
};

const changedParts = (t: Treatment, control: Treatment): string[] => {
  const parts = (['container', 'medium', 'light', 'system'] as const).filter(
    (p) => t[p] !== '' && control[p] !== '' && t[p].toLowerCase() !== control[p].toLowerCase(),
  );
  const fed = usesKey(t, new Set()) !== usesKey(control, new Set());
  return [...(fed ? ['products'] : []), ...parts];
};

const severalChanged: Rule = {
  id: 'several-changed',
  severity: 'breaks',
  title: 'Several things changed at once',
  why: 'When two things differ, nobody can say which one did it.',
  check: ({ plan }) => {
    const control = controlOf(plan);
    if (!control || plan.wholeSystem) return null;
    const changed = plan.treatments
      .filter((t) => t !== control)
      .map((t) => ({ t, parts: changedParts(t, control) }))
      .filter((c) => c.parts.length > 1);
    if (changed.length === 0) return null;
    return {
      found:
        changed
          .map((c) => `${c.t.name} differs from ${control.name} in ${c.parts.join(' and ')}`)
          .join('; ') + '.',
      cure: 'Change one thing; or compare whole systems and say so.',
      room: 'contenders',
      fix: { label: 'Call it whole systems', apply: () => ({ plan: { ...plan, wholeSystem: true } }) },
    };
  },
};

const fedWords = /fertili[sz]ed|pre-?charged|enriched|with feed|fed medium/i;

const fedMedium: Rule = {
  id: 'fed-medium',
  severity: 'breaks',
  title: 'The medium brings its own feed',
  why: 'A medium that feeds hides what the feed does.',
  check: ({ plan }) => {
    if (!comparesFeeds(plan) || plan.wholeSystem) return null;
    const fed = plan.treatments.filter((t) => t.conditions.mediumFed || fedWords.test(t.medium));
    if (fed.length === 0) return null;
    return {
      found: `${fed.map((t) => t.name).join(', ')}: ${fed[0]!.medium || 'the medium'} carries feed.`,
      cure: 'Take a medium without feed; rinse coir.',
      room: 'contenders',
    };
  },
};

const notDisclosed: Rule = {
  id: 'undisclosed',
  severity: 'weakens',
  title: 'A free sample or own product without disclosure',
  why: 'Readers have a right to know, and many places make it law (in the US FTC Guides, 16 CFR Part 255).',
  check: ({ plan, disclosure }) => {
    const used = new Set(plan.treatments.flatMap((t) => t.products.map((u) => u.productId as string)));
    const given = plan.products.filter((p) => used.has(p.id));
    const unsaid = undisclosed(given, disclosure);
    if (unsaid.length === 0) return null;
    return {
      found: `${unsaid.map((p) => `${p.name} (${p.obtained})`).join(', ')}: the review’s disclosure doesn’t name ${unsaid.length > 1 ? 'them' : 'it'}.`,
      cure: 'Say how each product was obtained.',
      room: 'review',
      fix: {
        label: 'Write the disclosure',
        apply: () => ({ disclosure: [disclosure, ...unsaid.map(sayObtained)].filter(Boolean).join(' ') }),
      },
    };
  },
};

const sameProductTwice: Rule = {
  id: 'same-treatment-twice',
  severity: 'note',
  title: 'Two treatments are the same',
  why: 'They answer nothing that more units of one wouldn’t.',
  check: ({ plan }) => {
    const key = (t: Treatment) =>
      [
        usesKey(t, new Set()),
        JSON.stringify(
          t.products.map((u) => [u.productId, u.timesPerUnit, u.fromDay, u.everyDays, u.apart]).sort(),
        ),
        t.flushDays.join(),
        t.container,
        t.medium,
        t.light,
        t.system,
        t.water,
        JSON.stringify(t.conditions),
        JSON.stringify(t.levels),
      ].join('|');
    const fed = plan.treatments.filter((t) => t.products.length > 0);
    const twice = [...groupsOf(fed, key).values()].find((g) => g.length > 1);
    if (!twice) return null;
    return {
      found: `${twice.map((t) => t.name).join(' and ')} get the same in the same way.`,
      cure: 'Remove one, or say in its row what differs.',
      room: 'contenders',
    };
  },
};

export const productRules = [
  noControl,
  peersOnly,
  additiveWithoutBase,
  severalChanged,
  fedMedium,
  notDisclosed,
  sameProductTwice,
];

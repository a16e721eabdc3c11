import { newInVersion2, newInVersion3 } from './blankPlan';
import { noConditions } from './treatment';
import { usMeasures } from '../quantity/units';
import { type Result, err, ok } from '../model/result';

/** The version of library files. */
export const LIBRARY_VERSION = 2;

/** The version of trial files this build writes. Raise it with every change of the file format, and add a migration. */
export const FILE_VERSION = 4;

interface Migration {
  /** turns a file of version `from` into one of `from + 1` */
  from: number;
  /** what changed, in a line */
  what: string;
  migrate: (file: Record<string, unknown>) => Record<string, unknown>;
}

type Loose = Record<string, unknown>;
const each = (list: unknown, change: (item: Loose) => Loose) => ((list ?? []) as Loose[]).map(change);

function planFrom1(plan: Loose): Loose {
  return {
    ...newInVersion2(),
    ...plan,
    traits: each(plan.traits, (t) => ({ outOf: null, scale: [], ...t })),
    treatments: each(plan.treatments, (t) => ({
      system: '',
      conditions: noConditions,
      levels: {},
      expectedPercent: null,
      ...t,
      products: each(t.products, (u) => ({ stage: '', ...u })),
    })),
    areas: each(plan.areas, (a) => ({ reserved: [], ...a })),
    units: each(plan.units, (u) => ({ columnBlock: null, setting: null, startSize: null, ...u })),
    design: plan.design ? { settings: [], balance: null, ...(plan.design as Loose) } : null,
  };
}

/** A product as version 1 of the library had it, with what came since. */
export const productFrom1 = (product: Loose): Loose => ({
  labelRate: '',
  labelMeasures: usMeasures,
  spoon: null,
  ownMeasures: [],
  solubilityGPerL: null,
  character: [],
  ...product,
  analysis: product.analysis
    ? {
        nitratePercent: null,
        ammoniumPercent: null,
        ureaPercent: null,
        micros: {},
        printedAs: { main: 'oxide', secondary: 'element' },
        ...(product.analysis as Loose),
      }
    : null,
  packs: each(product.packs, (p) => ({ count: 1, ...p })),
});

function planFrom2(plan: Loose): Loose {
  return {
    ...newInVersion3(),
    ...plan,
    treatments: each(plan.treatments, (t) => ({
      flushDays: [],
      ...t,
      products: each(t.products, (u) => ({
        rateText: '',
        fromDay: null,
        everyDays: null,
        strengthPercent: 100,
        ...u,
      })),
    })),
    products: each(plan.products, productFrom1),
  };
}

/** Plans of version 3 matched “nitrogen” where they meant any element. */
const planFrom3 = (plan: Loose): Loose => ({
  ...plan,
  matchedOn: plan.matchedOn === 'nitrogen' ? 'element' : plan.matchedOn,
});

/** The body of a line as version 4 has it: a sample is a number or null in every kind. */
const bodyFrom3 = (body: Loose): Loose =>
  body.kind === 'weighing' ? { ...body, sample: body.sample ?? null } : body;

/**
 * A line as version 4 has it. Older lines have no counter: the time they were written down stands in for it, so
 * that the same line gets the same counter on every device.
 */
const entryFrom3 = (entry: Loose): Loose => ({
  ...bodyFrom3(entry),
  ...(entry.kind === 'correction' &&
    entry.replacement !== null && { replacement: bodyFrom3(entry.replacement as Loose) }),
  offsetMin: null,
  device: '',
  counter: Math.max(0, Date.parse(entry.recordedAt as string) || 0),
});

/** A sealed plan keeps a copy in the words it was sealed in, so that its seal can still be checked. */
const sealedCopy = (file: Loose, version: number): Loose | null => {
  const known = file.sealedAs as Loose | null | undefined;
  const sealed = ((file.log ?? []) as Loose[]).some((e) => e.kind === 'seal');
  return known ?? (sealed ? { version, plan: file.plan } : null);
};

export const libraryMigrations: readonly Migration[] = [
  {
    from: 1,
    what: 'products have a label rate, forms of nitrogen, trace elements, spoons, own measures, counted packs',
    migrate: (file) => ({ ...file, products: each(file.products, productFrom1) }),
  },
];

/** In order, one for each version but the newest. */
export const trialMigrations: readonly Migration[] = [
  {
    from: 1,
    what: 'a plan says what is alike, how it is blinded and audited; traits have scales; areas have reserved places',
    migrate: (file) => ({
      ...file,
      key: null,
      sealedAs: sealedCopy(file, 1),
      plan: planFrom1(file.plan as Loose),
    }),
  },
  {
    from: 2,
    what: 'a plan says how it is mixed; doses have days and a strength; products as in library version 2',
    migrate: (file) => ({ ...file, sealedAs: sealedCopy(file, 2), plan: planFrom2(file.plan as Loose) }),
  },
  {
    from: 3,
    what: 'lines carry a logical clock, their device and its offset; samples are a number or null; sealed plans keep a copy',
    migrate: (file) => ({
      conflicts: [],
      ...file,
      sealedAs: sealedCopy(file, 3),
      plan: planFrom3(file.plan as Loose),
      log: each(file.log, entryFrom3),
    }),
  },
];

/** A plan of an earlier file version as this build would have it; null where it can't be read. */
export function planFromFile(plan: unknown, version: number): unknown {
  const current = migrate({ version, plan, log: [] });
  return current.ok ? current.value.plan : null;
}

type MigrationError =
  | { tag: 'noVersion' }
  | { tag: 'newer'; version: number }
  | { tag: 'noPath'; version: number };

export function describeMigrationError(e: MigrationError, newest = FILE_VERSION): string {
  switch (e.tag) {
    case 'noVersion':
      return 'The file doesn’t say which version of the format it is in.';
    case 'newer':
      return `The file was written by a newer Palazzo (format ${e.version}; this one reads up to ${newest}).`;
    case 'noPath':
      return `There is no way from format ${e.version} to ${newest}.`;
  }
}

/**
 * Brings a file of any earlier version up to the newest.
 * @param file parsed JSON with a whole-number `version`
 */
export function migrate(
  file: unknown,
  migrations: readonly Migration[] = trialMigrations,
  newest: number = FILE_VERSION,
): Result<Record<string, unknown>, MigrationError> {
  if (typeof file !== 'object' || file === null || !('version' in file) || !Number.isInteger(file.version)) {
    return err({ tag: 'noVersion' });
  }
  let current = file as Record<string, unknown>;
  let version = file.version as number;
  if (version > newest) return err({ tag: 'newer', version });
  while (version < newest) {
    const step = migrations.find((m) => m.from === version);
    if (!step) return err({ tag: 'noPath', version });
    current = { ...step.migrate(current), version: version + 1 };
    version += 1;
  }
  return ok(current);
}

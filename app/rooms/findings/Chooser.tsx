import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { methodsFor } from '~core/analysis/methods';
import { seedlingFigures, seedlingNames } from '~core/analysis/seedlings';
import { gradesOf } from '~core/log/picks';
import { type Plan, type Trait, type TraitSummary, kindOf } from '~core/model/plan';
import { plural } from '~core/quantity/format';

const allRounds: Record<TraitSummary, string> = {
  last: 'the last round',
  sum: 'all picks together',
  gain: 'last less first',
  area: 'the mean over time',
  growth: 'growth over time',
};

interface Props {
  plan: Plan;
  trait: Trait;
  search: URLSearchParams;
  set: (key: string, value: string) => void;
  hasExclusions: boolean;
  hasBorderline: boolean;
  hasOffTypes: boolean;
}

interface Asked {
  key: string;
  label: string;
  width: number;
  /** value in the address and name; the first is the usual one, which isn't in the address */
  options: readonly (readonly [string, string])[];
}

/** Which round and crop, what counts, and by which method. */
export function Chooser({ plan, trait, search, set, hasExclusions, hasBorderline, hasOffTypes }: Props) {
  const rounds = plan.rounds.filter((r) => r.traitIds.includes(trait.id));
  const ways = methodsFor(trait);
  const picked = kindOf(trait).takenBy === 'picks' && gradesOf(plan).some((g) => g.use === 'loss');
  const asked: (Asked | false)[] = [
    rounds.length > 1 && {
      ...{ key: 'round', label: 'Taken at', width: 200 },
      options: [
        ['', allRounds[trait.summary]],
        ...rounds.map((r) => [r.id, `${r.name}, day ${r.day}`] as const),
      ],
    },
    kindOf(trait).observes === 'kOfN' &&
      rounds.length > 1 && {
        ...{ key: 'as', label: 'Looked at as', width: 230 },
        options: [['', 'share of all'], ...seedlingFigures.map((f) => [f, seedlingNames[f]] as const)],
      },
    plan.cropsWithin.length > 0 && {
      ...{ key: 'crop', label: 'Crop', width: 180 },
      options: [['', 'all crops'], ...plan.cropsWithin.map((c, i) => [String(i), c] as const)],
    },
    hasExclusions && {
      ...{ key: 'excluded', label: `Left-out ${plural(plan.unitNoun)}`, width: 170 },
      options: [
        ['', 'stay out'],
        ['in', 'taken in'],
      ],
    },
    picked && {
      ...{ key: 'losses', label: 'Lost to pests', width: 190 },
      options: [
        ['', 'isn’t yield'],
        ['in', 'counts as yield'],
      ],
    },
    hasBorderline && {
      ...{ key: 'borderline', label: 'Borderline cases', width: 180 },
      options: [
        ['', 'don’t count'],
        ['in', 'count'],
      ],
    },
    hasOffTypes && {
      ...{ key: 'offtypes', label: 'Off types', width: 180 },
      options: [
        ['', 'count'],
        ['out', 'don’t count'],
      ],
    },
    ways.length > 1 && {
      ...{ key: 'method', label: 'Tested by', width: 240 },
      options: ways.map((m, i) => [i === 0 ? '' : m.id, m.name] as const),
    },
  ];
  return (
    <div className="inline-row no-print">
      {asked.map(
        (a) =>
          a && (
            <TextField
              key={a.key}
              select
              label={a.label}
              value={search.get(a.key) ?? ''}
              onChange={(e) => set(a.key, e.target.value)}
              sx={{ width: a.width }}
              slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
            >
              {a.options.map(([value, name]) => (
                <MenuItem key={value} value={value}>
                  {name}
                </MenuItem>
              ))}
            </TextField>
          ),
      )}
    </div>
  );
}

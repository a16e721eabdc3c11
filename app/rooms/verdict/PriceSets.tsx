import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import type { PriceSet } from '~core/model/judgement';
import { newId } from '~core/model/newId';
import type { Plan } from '~core/model/plan';
import { todayDate } from '../../ui/clock';
import { DayField } from '../../ui/day/DayField';
import { KeptText } from '../../form/KeptText';
import { UNFINISHED } from '../../ui/day/whole';
import { MoneyField } from './MoneyField';

interface Props {
  plan: Plan;
  sets: readonly PriceSet[];
  onKeep: (sets: PriceSet[]) => void;
}

/** What the products cost elsewhere: whether the best value is another where prices are. */
export function PriceSets({ plan, sets, onKeep }: Props) {
  const priced = plan.products.filter((p) => p.packs.length > 0);
  const change = (id: string, over: Partial<PriceSet>) =>
    onKeep(sets.map((s) => (s.id === id ? { ...s, ...over } : s)));
  const priceOf = (set: PriceSet, id: string, minor: number | null) => {
    const others = Object.entries(set.prices).filter(([p]) => p !== id);
    return Object.fromEntries(minor === null ? others : [...others, [id, Math.round(minor)]]);
  };
  const currencies = [
    ...new Set([
      plan.currency,
      ...plan.mixing.exchange.map((e) => e.currency),
      ...sets.flatMap((s) => s.currency ?? []),
    ]),
  ];
  if (priced.length === 0) return null;
  return (
    <section className="stack no-print" style={{ marginTop: '1.4rem' }}>
      <h2>Prices elsewhere</h2>
      <p className="small quiet">
        What the same packs cost somewhere else, dated, in {plan.currency} or with the rate written in Mixing.
        A product without a price there keeps the one it was bought at.
      </p>
      {sets.map((set) => (
        <div key={set.id} className="inline-row" role="group" aria-label={`Prices of ${set.name}`}>
          <KeptText
            sx={{ width: 180 }}
            empty="Name what it is."
            label="Where"
            value={set.name}
            onKeep={(name) => change(set.id, { name })}
          />
          <DayField
            label="Seen on"
            value={set.seenOn ?? ''}
            onChange={(day) => day !== UNFINISHED && change(set.id, { seenOn: day || null })}
            fullWidth={false}
            sx={{ width: 190 }}
          />
          {currencies.length > 1 && (
            <TextField
              select
              size="small"
              label="In"
              value={set.currency ?? plan.currency}
              sx={{ width: 90 }}
              onChange={(e) => change(set.id, { currency: e.target.value })}
            >
              {currencies.map((c) => (
                <MenuItem key={c} value={c}>
                  {c}
                </MenuItem>
              ))}
            </TextField>
          )}
          {priced.map((p) => (
            <MoneyField
              key={p.id}
              label={`${p.name}, ${p.packs[0]!.size} ${p.packs[0]!.unit}`}
              value={set.prices[p.id] ?? null}
              currency={set.currency ?? plan.currency}
              width={190}
              onKeep={(v) => change(set.id, { prices: priceOf(set, p.id, v) })}
            />
          ))}
          <Button
            color="inherit"
            aria-label={`Remove the prices of ${set.name}`}
            onClick={() => onKeep(sets.filter((s) => s.id !== set.id))}
          >
            Remove
          </Button>
        </div>
      ))}
      <div>
        <Button
          variant="outlined"
          color="secondary"
          onClick={() =>
            onKeep([...sets, { id: newId<string>(), name: 'another shop', seenOn: todayDate(), prices: {} }])
          }
        >
          Prices of another place
        </Button>
      </div>
    </section>
  );
}

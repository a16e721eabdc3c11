import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { useFormContext, useWatch } from 'react-hook-form';
import type { Product } from '~core/model/product';
import type { ContendersFormInput } from './contendersForm';
import { alikeOf, dosedUses, waterOf } from './priced';

const asked = [
  ['solutionLPerUnit', 'Solution'],
  ['timesPerUnit', 'Times'],
  ['fromDay', 'From day'],
  ['everyDays', 'Every, days'],
] as const;
type Field = (typeof asked)[number][0];

interface Props {
  products: readonly Product[];
  unitNoun: string;
  locked: boolean;
}

/** What is the same for all doses, said once and changed once. */
export function AlikeDoses({ products, unitNoun, locked }: Props) {
  const { control, getValues, setValue } = useFormContext<ContendersFormInput>();
  const treatments = useWatch({ control, name: 'treatments' }) ?? [];
  const [typed, setTyped] = useState<Partial<Record<Field, string>> | null>(null);
  const uses = dosedUses(treatments, products);
  if (uses.length === 0) return null;
  const { water, when } = alikeOf(uses);
  const caption = [water === null ? null : `${water} to a ${unitNoun}`, when].filter(Boolean).join(', ');
  const keep = () => {
    const dosed = new Set(dosedUses(getValues('treatments'), products));
    getValues('treatments').forEach((t, i) =>
      t.products.forEach((u, j) => {
        // What is mixed in is mixed in once, on its own day.
        if (!dosed.has(u) || u.way === 'medium') return;
        for (const [field] of asked) {
          const to = typed?.[field];
          // What is strewn isn't given in water because others are.
          if (to === undefined || (field === 'solutionLPerUnit' && waterOf(u) === '')) continue;
          setValue(`treatments.${i}.products.${j}.${field}`, to, { shouldDirty: true });
        }
      }),
    );
    setTyped(null);
  };
  return (
    <div className="alike small">
      {typed === null ? (
        <p className="quiet">
          {caption ? `The same for all: ${caption}.` : 'Doses differ in when, or in how much water.'}{' '}
          {!locked && (
            <button type="button" className="link" onClick={() => setTyped({})}>
              Change for all
            </button>
          )}
        </p>
      ) : (
        <div className="inline-row" role="group" aria-label="For all doses">
          {asked.map(([field, label]) => (
            <TextField
              key={field}
              size="small"
              label={label}
              value={typed[field] ?? ''}
              placeholder="as it is"
              onChange={(e) => setTyped({ ...typed, [field]: e.target.value })}
              onKeyDown={(e) => {
                if (e.key !== 'Enter') return;
                e.preventDefault();
                keep();
              }}
              sx={{ width: 120 }}
              slotProps={{ inputLabel: { shrink: true } }}
            />
          ))}
          <Button size="small" variant="outlined" color="secondary" onClick={keep}>
            For all doses
          </Button>
          <Button size="small" color="inherit" onClick={() => setTyped(null)}>
            Cancel
          </Button>
        </div>
      )}
    </div>
  );
}

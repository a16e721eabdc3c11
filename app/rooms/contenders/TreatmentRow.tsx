import Button from '@mui/material/Button';
import { useState } from 'react';
import { useFieldArray, useFormContext, useWatch } from 'react-hook-form';
import { roleNames } from '~core/model/plan';
import type { Product } from '~core/model/product';
import { Choice, Field } from '../../form/fields';
import { Caution } from '../../ui/Caution';
import { useNotice } from '../../ui/Notices';
import { ChartDialog } from './ChartDialog';
import { UseRow } from './UseRow';
import { shapeOf } from './priced';
import type { ContendersFormInput, UseInput } from './contendersForm';
import { nextUse, productMeant } from './newContender';

interface Props {
  index: number;
  products: readonly Product[];
  unitNoun: string;
  locked: boolean;
  remove: () => void;
  /** puts one with the same doses and conditions below */
  copy: () => void;
}

const roles = (Object.entries(roleNames) as [string, string][]).map(([k, v]) => [k, v] as const);

/** One contender opened: name, role, its products with doses and their price. */
export function TreatmentRow({ index, products, unitNoun, locked, remove, copy }: Props) {
  const { control, getValues } = useFormContext<ContendersFormInput>();
  const uses = useFieldArray({ control, name: `treatments.${index}.products`, keyName: 'key' });
  // Narrowly, so that a key in a dose doesn't draw the whole contender anew.
  const [name, role, levels, peers] = useWatch({
    control,
    name: [`treatments.${index}.name`, `treatments.${index}.role`, `treatments.${index}.levels`, 'peers'],
  });
  const at = (field: string) => `treatments.${index}.${field}`;
  const first = products[0];
  const notice = useNotice();
  const [charting, setCharting] = useState(false);
  const put = (made: UseInput[]) => {
    const before = getValues(`treatments.${index}.products`);
    uses.replace(made);
    setCharting(false);
    notice({
      text: `The chart is ${made.length} ${made.length === 1 ? 'dose' : 'doses'}; save the contenders to keep it.`,
      undo: () => uses.replace(before),
    });
  };
  const addProduct = () => {
    const all = getValues('treatments');
    const given = all.flatMap((t) => t.products);
    const last = all[index]?.products.at(-1) ?? given.at(-1) ?? null;
    uses.append(nextUse(productMeant(products, all, index), last));
  };
  return (
    <div className="contender-body">
      <div className="fields">
        <div className="w4">
          <Field name={at('name')} label="Name" />
        </div>
        <div className="w3">
          <Choice name={at('role')} label="Role" options={roles} />
        </div>
        <div className="w3">
          {role === 'test' && !peers && (
            <Field
              name={at('expectedPercent')}
              label="Expected change"
              numeric
              suffix="%"
              helperText="of the control"
            />
          )}
        </div>
        <div className="w2" style={{ textAlign: 'right' }}>
          {!locked && (
            <Button color="inherit" onClick={copy} aria-label={`Copy ${name || 'this contender'}`}>
              Copy
            </Button>
          )}
          {!locked && (
            <Button color="inherit" onClick={remove} aria-label={`Remove ${name || 'this contender'}`}>
              Remove
            </Button>
          )}
        </div>
      </div>
      {uses.fields.map((f, i) => (
        <UseRow
          key={f.key}
          treatment={index}
          index={i}
          products={products}
          unitNoun={unitNoun}
          remove={locked ? null : () => uses.remove(i)}
        />
      ))}
      {uses.fields.length > 1 && (
        <div style={{ marginTop: '0.7rem' }}>
          <Caution>
            Concentrates never meet undiluted: each goes into the water on its own. The labels come first.
          </Caution>
        </div>
      )}
      <div className="inline-row" style={{ marginTop: '0.7rem' }}>
        {!locked && first && (
          <Button size="small" color="secondary" onClick={addProduct}>
            Add a product
          </Button>
        )}
        {!locked && first && (
          <Button size="small" color="secondary" onClick={() => setCharting(true)}>
            Feeding chart …
          </Button>
        )}
        {uses.fields.length > 0 && (
          <div style={{ width: '13rem' }}>
            <Field
              name={at('flushDays')}
              label="Plain-water days (flush)"
              placeholder="28, 35"
              size="small"
            />
          </div>
        )}
        {uses.fields.length === 0 && (
          <span className="small quiet">
            {role === 'untreated'
              ? 'No product: it costs nothing.'
              : 'No product: what it costs isn’t known. Add one, at a price of 0 where it cost nothing.'}
          </span>
        )}
        {Object.keys(levels ?? {}).length > 0 && (
          <span className="small quiet">
            {Object.entries(levels!)
              .map(([factor, level]) => `${factor}: ${level}`)
              .join(' · ')}
          </span>
        )}
      </div>
      {charting && (
        <ChartDialog
          name={name ?? ''}
          uses={getValues(`treatments.${index}.products`)}
          products={products}
          measures={{ spoon: getValues('spoonSystem'), gallon: getValues('gallonSystem') }}
          unit={shapeOf({ unitNoun, conditions: getValues(`treatments.${index}.conditions`) })}
          unitNoun={unitNoun}
          onClose={() => setCharting(false)}
          onMake={put}
        />
      )}
    </div>
  );
}

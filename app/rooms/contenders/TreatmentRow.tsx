import Button from '@mui/material/Button';
import { useState } from 'react';
import { useFieldArray, useFormContext, useWatch } from 'react-hook-form';
import { roleNames } from '~core/model/plan';
import type { Kit } from '~core/cost/kits';
import { type Product, isDosed } from '~core/model/product';
import { Choice, Field } from '../../form/fields';
import { Caution } from '../../ui/Caution';
import { useNotice } from '../../ui/Notices';
import { ChartDialog } from './ChartDialog';
import { UseRow } from './UseRow';
import { dosedUses, shapeOf } from './priced';
import type { ContendersFormInput, TreatmentInput, UseInput } from './contendersForm';
import { inWater } from './dose';
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

/** Feeds of the library that nobody gets yet, where they are few enough to be the ones that are meant. */
function unfedOf(products: readonly Product[], treatments: readonly Pick<TreatmentInput, 'products'>[]) {
  const given = new Set(treatments.flatMap((t) => t.products.map((u) => u.productId as string)));
  const unfed = products.filter((p) => isDosed(p.category) && !given.has(p.id)).map((p) => p.id as string);
  return unfed.length > 6 ? [] : unfed;
}

/** One contender opened: name, role, its products with doses and their price. */
export function TreatmentRow({ index, products, unitNoun, locked, remove, copy }: Props) {
  const { control, getValues, setValue } = useFormContext<ContendersFormInput>();
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
  /** Whoever gets something: a chart can be for all of them. */
  const fed = () => getValues('treatments').flatMap((t, i) => (t.role === 'untreated' ? [] : [i]));
  const put = (made: UseInput[], forAll: boolean) => {
    const before = getValues('treatments').map((t) => t.products);
    const whose = forAll ? fed() : [index];
    for (const i of whose) {
      const { products: own } = getValues(`treatments.${i}`);
      // What stands in place (a machine, a pot) isn't fed by the chart and stays.
      const dosed = new Set(dosedUses([{ products: own }], products));
      const next = [...own.filter((u) => !dosed.has(u)), ...structuredClone(made)];
      if (i === index) uses.replace(next);
      else setValue(`treatments.${i}.products`, next, { shouldDirty: true });
    }
    setCharting(false);
    notice({
      text: `The chart is ${made.length} ${made.length === 1 ? 'dose' : 'doses'}${forAll ? ' for each' : ''}; save the contenders to keep it.`,
      undo: () => {
        for (const i of whose) {
          if (i === index) uses.replace(before[i]!);
          else setValue(`treatments.${i}.products`, before[i]!, { shouldDirty: true });
        }
      },
    });
  };
  /** All bottles of a kit, in the water and on the days of the one in whose place they come. */
  const putKit = (at: number, kit: Kit) => {
    const own = getValues(`treatments.${index}.products`);
    const made = kit.products.map((p) => nextUse(p, own[at]!));
    uses.replace([...own.slice(0, at), ...made, ...own.slice(at + 1)]);
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
          onKit={(kit) => putKit(i, kit)}
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
        <FlushDays index={index} />
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
          uses={dosedUses([getValues(`treatments.${index}`)], products)}
          unfed={unfedOf(products, getValues('treatments'))}
          fed={fed().length}
          products={products}
          measures={getValues('mixing.measures')}
          unit={shapeOf({
            unitNoun,
            measures: getValues('mixing.measures'),
            conditions: getValues(`treatments.${index}.conditions`),
          })}
          unitNoun={unitNoun}
          onClose={() => setCharting(false)}
          onMake={put}
        />
      )}
    </div>
  );
}

/** Days of plain water in place of feed: asked where there is a feed in water. */
function FlushDays({ index }: Pick<Props, 'index'>) {
  const { control } = useFormContext<ContendersFormInput>();
  const uses = useWatch({ control, name: `treatments.${index}.products` }) ?? [];
  if (!uses.some((u) => u.solutionLPerUnit !== '' && inWater(u.way))) return null;
  return (
    <div style={{ width: '13rem' }}>
      <Field
        name={`treatments.${index}.flushDays`}
        label="Plain-water days (flush)"
        placeholder="28, 35"
        size="small"
      />
    </div>
  );
}

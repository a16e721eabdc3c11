import Button from '@mui/material/Button';
import { useFormContext, useWatch } from 'react-hook-form';
import { type Kit, kitsOf } from '~core/cost/kits';
import { formatMoney } from '~core/quantity/money';
import { isByPlant, isByVolume } from '~core/mixing/resolveRate';
import { amountWords } from '~core/quantity/format';
import { sayUndated } from '~core/mixing/programme';
import { numberIn } from '~core/quantity/number';
import { type Product, amountUnits, isDosed } from '~core/model/product';
import { Choice, Field, Tick } from '../../form/fields';
import type { ContendersFormInput, UseInput } from './contendersForm';
import { Caution } from '../../ui/Caution';
import { inWater } from './dose';
import { newUse } from './newContender';
import { pricedUse } from './priced';

const wayChoices: [UseInput['way'], string][] = [
  ['water', 'in the water'],
  ['after', 'in water, after the other'],
  ['spray', 'sprayed on'],
  ['dry', 'as it is'],
  ['medium', 'mixed into the medium'],
];

interface Props {
  /** which contender, and which of its products, from 0 */
  treatment: number;
  index: number;
  products: readonly Product[];
  unitNoun: string;
  /** null once the plan is sealed */
  remove: (() => void) | null;
  /** puts all bottles of a kit in this one's place */
  onKit: (kit: Kit) => void;
}

/** A product of a contender: its dose, when it is given, and what that costs. */
export function UseRow({ treatment, index, products, unitNoun, remove, onKit }: Props) {
  const { setValue, getValues } = useFormContext<ContendersFormInput>();
  const path = `treatments.${treatment}.products.${index}` as const;
  const at = (name: string) => `${path}.${name}`;
  const [before, dose, given] = useWatch({ name: [at('productId'), at('amount'), at('way')] }) as [
    string,
    string,
    UseInput['way'] | undefined,
  ];
  const way = given ?? 'water';
  const kits = kitsOf(products);
  const chosen = products.find((p) => p.id === before);
  // A pot or a support is stood there once; nothing of it is dissolved or given again.
  const dosed =
    chosen === undefined || isDosed(chosen.category) || getValues(`${path}.solutionLPerUnit`) !== '';
  const wet = dosed && inWater(way);
  const doseUntouched = dose === '' || (chosen !== undefined && dose === newUse(chosen).amount);
  // A bare figure is counted the way the product is sold: the unit goes with the product.
  const changeProduct = (id: string) => {
    const product = products.find((p) => p.id === id);
    setValue(`${path}.productId`, id, { shouldDirty: true });
    setValue(`${path}.packId`, '');
    if (!product) return;
    const { unit, amount, way: usual } = newUse(product);
    setValue(`${path}.unit`, unit);
    if (getValues(`${path}.solutionLPerUnit`) === '') setValue(`${path}.way`, usual);
    // What the label says of another product isn't this one's dose; what was typed stays.
    if (doseUntouched) setValue(`${path}.amount`, amount);
  };
  return (
    <div className="fields" style={{ marginTop: '0.8rem' }}>
      <div className="w3">
        <Choice
          name={at('productId')}
          label="Product"
          options={[
            ...products.map((p) => [p.id, p.name] as const),
            ...kits.map((k) => [k.id, `${k.name}, all ${k.products.length}`] as const),
          ]}
          onChange={(e) => {
            const kit = kits.find((k) => k.id === e.target.value);
            if (kit) onKit(kit);
            else changeProduct(e.target.value);
          }}
        />
      </div>
      <div className="w2">
        <Field
          name={at('amount')}
          label={dosed ? 'Dose' : `For each ${unitNoun}`}
          figures
          helperText={dosed ? 'or 1 tsp/gal' : undefined}
        />
      </div>
      <div className="w2">
        <Choice name={at('unit')} label="Unit" options={amountUnits.map((u) => [u, u] as const)} />
      </div>
      {dosed && (
        <div className="w3">
          <Choice
            name={at('way')}
            label="Given"
            options={wayChoices}
            onChange={(e) => {
              setValue(`${path}.way`, e.target.value as UseInput['way'], { shouldDirty: true });
              if (e.target.value !== 'medium') return;
              // Mixed in once, when it is filled.
              setValue(`${path}.timesPerUnit`, '1');
              setValue(`${path}.everyDays`, '');
            }}
          />
        </div>
      )}
      {wet && (
        <div className="w2">
          <Field
            name={at('solutionLPerUnit')}
            label={`${way === 'spray' ? 'Spray' : 'Solution'} per ${unitNoun}`}
            figures
            helperText="litres, or 1 gal, 2 L/m²"
          />
        </div>
      )}
      {dosed && way !== 'medium' && (
        <div className="w12 schedule">
          <Field name={at('timesPerUnit')} label="Times" numeric />
          <Field name={at('fromDay')} label="From day" numeric placeholder="–" />
          <Field name={at('everyDays')} label="Every" suffix="days" numeric placeholder="–" />
          <Field name={at('strengthPercent')} label="Share of rate" suffix="%" numeric />
          <Field name={at('stage')} label="Stage" placeholder="throughout" />
        </div>
      )}
      {dosed && way !== 'medium' && remove && <Undated treatment={treatment} index={index} />}
      <PlantsIn treatment={treatment} index={index} unitNoun={unitNoun} />
      {way === 'medium' && (
        <div className="w2">
          <Field name={at('fromDay')} label="On day" numeric placeholder="–" />
        </div>
      )}
      {way === 'medium' && <MediumIn treatment={treatment} index={index} unitNoun={unitNoun} />}
      {wet && <PartApart treatment={treatment} index={index} />}
      {way === 'spray' && (
        <div className="w12">
          <Caution>
            Sprays drift and are breathed in: gloves, glasses and mask as the label asks, no wind, no sun on
            wet leaves, waiting times before anything is eaten. The label and local rules come first.
          </Caution>
        </div>
      )}
      <PackChoice treatment={treatment} index={index} products={products} />
      <div className="w12 use-foot">
        <UsePrice treatment={treatment} index={index} products={products} unitNoun={unitNoun} />
        {remove && (
          <Button size="small" color="inherit" onClick={remove} aria-label={`Remove product ${index + 1}`}>
            Remove
          </Button>
        )}
      </div>
    </div>
  );
}

/** Doses that have no day yet. */
function Undated({ treatment, index }: Pick<Props, 'treatment' | 'index'>) {
  const { control } = useFormContext<ContendersFormInput>();
  const at = `treatments.${treatment}.products.${index}` as const;
  const [times, from, every] = useWatch({
    control,
    name: [`${at}.timesPerUnit`, `${at}.fromDay`, `${at}.everyDays`],
  }).map((text) => numberIn(text ?? ''));
  // What isn’t a number of times or days is said at its field.
  if (!times || times > 10_000 || (every !== null && every! <= 0)) return null;
  const sentence = sayUndated({ timesPerUnit: times, fromDay: from ?? null, everyDays: every ?? null });
  return sentence && <p className="w12 small quiet">{sentence}</p>;
}

/** Asked where a treatment has several products in solution. */
function PartApart({ treatment, index }: Pick<Props, 'treatment' | 'index'>) {
  const { control } = useFormContext<ContendersFormInput>();
  const uses = useWatch({ control, name: `treatments.${treatment}.products` });
  const own = uses[index];
  const together = uses.filter((u) => u.solutionLPerUnit !== '' && u.way === own?.way);
  if (together.length < 2 || own?.solutionLPerUnit === '') return null;
  return (
    <div className="w12">
      <Tick
        name={`treatments.${treatment}.products.${index}.apart`}
        label="Dissolved apart, in this water of its own, then joined with the other parts"
      />
    </div>
  );
}

/** Which pack the price is taken from, where there is a choice. */
function PackChoice({ treatment, index, products }: Pick<Props, 'treatment' | 'index' | 'products'>) {
  const { control } = useFormContext<ContendersFormInput>();
  const at = `treatments.${treatment}.products.${index}` as const;
  const productId = useWatch({ control, name: `${at}.productId` });
  const product = products.find((p) => p.id === productId);
  if (!product || product.packs.length < 2) return null;
  const packs = product.packs.map((k) => {
    const price = formatMoney({ minor: k.priceMinor, currency: k.currency });
    return [k.id, `${amountWords(k.size, k.unit)} at ${price}`] as const;
  });
  return (
    <div className="w4">
      <Choice
        name={`${at}.packId`}
        label="Priced from"
        options={[['', `the first pack, ${packs[0]![1]}`], ...packs.slice(1)]}
      />
    </div>
  );
}

/** What the dose comes to and costs, worked out while it is typed. */
function UsePrice({ treatment, index, products, unitNoun }: Omit<Props, 'remove' | 'onKit'>) {
  const { control } = useFormContext<ContendersFormInput>();
  const [typed, areaPerUnitCm2, plantsPerUnit, containerVolumeL, measures] = useWatch({
    control,
    name: [
      `treatments.${treatment}.products.${index}`,
      `treatments.${treatment}.conditions.areaPerUnitCm2`,
      `treatments.${treatment}.conditions.plantsPerUnit`,
      `treatments.${treatment}.conditions.containerVolumeL`,
      'mixing.measures',
    ],
  });
  // Between the removal of a dose and the next drawing there is none.
  const use = (typed as Partial<UseInput> | undefined) ?? {};
  const product = products.find((p) => p.id === use.productId);
  if (!product) return <span className="small quiet">Choose a product from the library.</span>;
  const p = pricedUse(use, product, {
    measures,
    unitNoun,
    conditions: { areaPerUnitCm2, plantsPerUnit, containerVolumeL },
  });
  const label = product.labelRate || product.directions;
  if (p.fault)
    return (
      <span className="small" style={{ color: 'var(--ochre-text)' }}>
        {[p.comesTo, p.fault].filter(Boolean).join(' · ')}
      </span>
    );
  const priced = p.perDose &&
    p.perUnit && [
      ...(isDosed(product.category) ? [`${formatMoney(p.perDose)} a dose`] : []),
      `${formatMoney(p.perUnit)} per ${unitNoun}`,
      p.bought,
    ];
  return (
    <span className="small quiet">
      {priced ? [p.comesTo, ...priced].filter(Boolean).join(' · ') : label && `Label: ${label}`}
    </span>
  );
}

/** Asked where a rate is by the plant: a unit of several gets it so many times. */
function PlantsIn({ treatment, index, unitNoun }: Pick<Props, 'treatment' | 'index' | 'unitNoun'>) {
  const { control } = useFormContext<ContendersFormInput>();
  const amount = useWatch({ control, name: `treatments.${treatment}.products.${index}.amount` });
  if (!isByPlant(amount ?? '', unitNoun)) return null;
  return <OfAUnit {...{ treatment }} field="plantsPerUnit" label={`Plants in a ${unitNoun}`} numeric />;
}

/** Asked where a rate is by the litre of medium. */
function MediumIn({ treatment, index, unitNoun }: Pick<Props, 'treatment' | 'index' | 'unitNoun'>) {
  const { control } = useFormContext<ContendersFormInput>();
  const amount = useWatch({ control, name: `treatments.${treatment}.products.${index}.amount` });
  if (!isByVolume(amount ?? '')) return null;
  return <OfAUnit {...{ treatment }} field="containerVolumeL" label={`Medium in a ${unitNoun}`} />;
}

interface OfAUnitProps {
  treatment: number;
  field: 'plantsPerUnit' | 'containerVolumeL';
  label: string;
  numeric?: boolean;
}

/** A figure of the same-everything list, asked where a dose needs it; whoever hasn’t said gets the same. */
function OfAUnit({ treatment, field, label, numeric = false }: OfAUnitProps) {
  const { getValues, setValue } = useFormContext<ContendersFormInput>();
  const path = `treatments.${treatment}.conditions.${field}` as const;
  const forAll = () =>
    getValues('treatments').forEach((t, i) => {
      if (t.conditions[field].trim() === '')
        setValue(`treatments.${i}.conditions.${field}`, getValues(path), { shouldDirty: true });
    });
  return (
    <div className="w3">
      <Field
        name={path}
        label={label}
        numeric={numeric}
        figures={!numeric}
        helperText={numeric ? undefined : 'litres, or 1 gal'}
        onBlur={forAll}
      />
    </div>
  );
}

import CloseIcon from '@mui/icons-material/Close';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import { useFieldArray, useFormContext, useWatch } from 'react-hook-form';
import { formatMoney } from '~core/cost/money';
import { describeCostError, productCost } from '~core/cost/treatmentCost';
import { ProductUse, roleNames } from '~core/model/plan';
import { type Product, amountUnits } from '~core/model/product';
import { parseDecimal } from '~core/formats/csv';
import { Choice, Field } from '../../form/fields';
import { Caution } from '../../ui/Caution';
import { Tessera } from '../../ui/Tessera';
import { type ContendersFormInput, newUse } from './contendersForm';
import { resolveDose } from './dose';

interface Props {
  index: number;
  products: readonly Product[];
  currency: string;
  unitNoun: string;
  locked: boolean;
  /** tiles belong to codes, not to contenders */
  blind: boolean;
  remove: () => void;
}

const roles = (Object.entries(roleNames) as [string, string][]).map(([k, v]) => [k, v] as const);

/** One contender: tile, name, role, its products with doses and their price, and what surrounds it. */
export function TreatmentRow({ index, products, unitNoun, locked, blind, remove }: Props) {
  const { control } = useFormContext<ContendersFormInput>();
  const uses = useFieldArray({ control, name: `treatments.${index}.products`, keyName: 'key' });
  const treatment = useWatch({ control, name: `treatments.${index}` });
  const at = (name: string) => `treatments.${index}.${name}`;
  const first = products[0];
  return (
    <section className="sheet" aria-label={`Contender ${treatment?.name || index + 1}`}>
      <div className="fields">
        <div className="w4" style={{ display: 'flex', gap: '0.8rem', alignItems: 'center' }}>
          {!blind && <Tessera index={index} size={34} />}
          <Field name={at('name')} label="Name" />
        </div>
        <div className="w3">
          <Choice name={at('role')} label="Role" options={roles} />
        </div>
        <div className="w3">
          {treatment?.role === 'test' && (
            <Field name={at('expectedPercent')} label="Expected change" numeric suffix="% of control" />
          )}
        </div>
        <div className="w2" style={{ textAlign: 'right' }}>
          {!locked && (
            <Button
              color="inherit"
              onClick={remove}
              aria-label={`Remove ${treatment?.name || 'this contender'}`}
            >
              Remove
            </Button>
          )}
        </div>
      </div>
      {uses.fields.map((f, i) => (
        <div className="fields" key={f.key} style={{ marginTop: '0.8rem' }}>
          <div className="w3">
            <Choice
              name={at(`products.${i}.productId`)}
              label="Product"
              options={products.map((p) => [p.id, p.name] as const)}
            />
          </div>
          <div className="w2">
            <Field name={at(`products.${i}.amount`)} label="Dose" numeric helperText="or 1 tsp/gal" />
          </div>
          <div className="w1">
            <Choice
              name={at(`products.${i}.unit`)}
              label="Unit"
              options={amountUnits.map((u) => [u, u] as const)}
            />
          </div>
          <div className="w2">
            <Field
              name={at(`products.${i}.solutionLPerUnit`)}
              label={`Solution per ${unitNoun}`}
              suffix="L"
              numeric
              helperText="the dose is then per L"
            />
          </div>
          <div className="w3 pair">
            <Field name={at(`products.${i}.stage`)} label="Stage" placeholder="throughout" />
            {!locked && (
              <IconButton size="small" onClick={() => uses.remove(i)} aria-label={`Remove product ${i + 1}`}>
                <CloseIcon fontSize="small" />
              </IconButton>
            )}
          </div>
          <div className="w12 schedule">
            <Field name={at(`products.${i}.timesPerUnit`)} label="Times" numeric />
            <Field name={at(`products.${i}.fromDay`)} label="From day" numeric placeholder="0" />
            <Field name={at(`products.${i}.everyDays`)} label="Every" suffix="days" numeric placeholder="–" />
            <Field name={at(`products.${i}.strengthPercent`)} label="Strength" suffix="%" numeric />
          </div>
          <PackChoice
            name={at(`products.${i}.packId`)}
            product={products.find((p) => p.id === treatment?.products?.[i]?.productId)}
          />
          <div className="w12">
            <UsePrice
              use={treatment?.products?.[i]}
              areaCm2={treatment?.conditions?.areaPerUnitCm2}
              products={products}
              unitNoun={unitNoun}
            />
          </div>
        </div>
      ))}
      {uses.fields.length > 1 && (
        <div style={{ marginTop: '0.7rem' }}>
          <Caution>
            Concentrates never meet undiluted: each goes into the water on its own. The labels come first.
          </Caution>
        </div>
      )}
      <div className="line" style={{ marginTop: '0.7rem' }}>
        {!locked && first && (
          <Button size="small" color="secondary" onClick={() => uses.append(newUse(first))}>
            Add a product
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
          <span className="small quiet">No product: this contender costs nothing.</span>
        )}
        {Object.keys(treatment?.levels ?? {}).length > 0 && (
          <span className="small quiet">
            {Object.entries(treatment!.levels!)
              .map(([factor, level]) => `${factor}: ${level}`)
              .join(' · ')}
          </span>
        )}
      </div>
    </section>
  );
}

/** Which pack the price is taken from, where there is a choice. */
function PackChoice({ name, product }: { name: string; product: Product | undefined }) {
  if (!product || product.packs.length < 2) return null;
  const packs = product.packs.map((k) => {
    const price = formatMoney({ minor: k.priceMinor, currency: k.currency });
    return [k.id, `${k.size} ${k.unit} at ${price}`] as const;
  });
  return (
    <div className="w4">
      <Choice
        name={name}
        label="Priced from"
        options={[['', `the first pack, ${packs[0]![1]}`], ...packs.slice(1)]}
      />
    </div>
  );
}

type UseInput = Partial<ContendersFormInput['treatments'][number]['products'][number]>;

/** What the dose comes to and costs, worked out while it is typed. */
function UsePrice({
  use,
  areaCm2,
  products,
  unitNoun,
}: {
  use: UseInput | undefined;
  areaCm2: string | undefined;
  products: readonly Product[];
  unitNoun: string;
}) {
  const { control } = useFormContext<ContendersFormInput>();
  const [spoon, gallon] = useWatch({ control, name: ['spoonSystem', 'gallonSystem'] });
  const product = products.find((p) => p.id === use?.productId);
  const number = (text: string | undefined) => (text ? parseDecimal(text) : null);
  if (!product) return <span className="small quiet">Choose a product from the library.</span>;
  const label = product.labelRate || product.directions;
  const said = <span className="small quiet">{label && `Label: ${label}`}</span>;
  if (!use?.amount || !use.unit) return said;
  const solutionLPerUnit = number(use.solutionLPerUnit);
  const dose = resolveDose(
    { amount: use.amount, unit: use.unit, solutionLPerUnit },
    product,
    { spoon, gallon },
    number(areaCm2),
  );
  if (!dose.ok) return <span className="small quiet">{dose.error.message}</span>;
  const parsed = ProductUse.safeParse({
    productId: use.productId,
    packId: use.packId || null,
    ...dose.value,
    solutionLPerUnit,
    timesPerUnit: number(use.timesPerUnit),
    fromDay: null,
    everyDays: null,
    strengthPercent: number(use.strengthPercent),
    stage: use.stage ?? '',
  });
  if (!parsed.success) return said;
  const { amount, unit, rateText } = dose.value;
  const comesTo =
    rateText && `${Number(amount.toPrecision(3))} ${unit} ${solutionLPerUnit ? 'per L' : 'as it is'} · `;
  const cost = productCost(parsed.data, product);
  if (!cost.ok)
    return (
      <span className="small" style={{ color: 'var(--ochre-text)' }}>
        {comesTo}
        {describeCostError(cost.error)}
      </span>
    );
  const { perDose, perUnit, dosesPerPack, pack } = cost.value;
  return (
    <span className="small quiet">
      {comesTo}
      {formatMoney(perDose)} a dose · {formatMoney(perUnit)} per {unitNoun} · {Math.floor(dosesPerPack)} doses
      in a pack of {pack.size} {pack.unit} at{' '}
      {formatMoney({ minor: pack.priceMinor, currency: pack.currency })}
    </span>
  );
}

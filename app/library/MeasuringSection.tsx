import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { Controller, useFieldArray, useFormContext, useWatch } from 'react-hook-form';
import { numberIn } from '~core/quantity/number';
import { spoonDensity } from '~core/mixing/density';
import { aroundProduct, rateNote, readRate } from '~core/mixing/resolveRate';
import { type Character, characterNames, characters } from '~core/model/product';
import { gallonSystems, spoonSystems, systemNames } from '~core/quantity/units';
import { formatFigure } from '~core/quantity/format';
import { Choice, Field } from '../form/fields';
import { spoonMasses } from './labelText';
import { type ProductFormInput, spoonMl } from './productForm';

const systems = (list: readonly (keyof typeof systemNames)[]) =>
  list.map((s) => [s, systemNames[s]] as const);

/** How the product is dosed and measured: the label's rate, spoons, caps, density, what it dissolves to. */
export function MeasuringSection() {
  const { control } = useFormContext<ProductFormInput>();
  const [form, basis, n] = useWatch({ control, name: ['form', 'analysis.basis', 'analysis.nPercent'] });
  const [labelRate, labelMeasures] = useWatch({ control, name: ['labelRate', 'labelMeasures'] });
  // The label counts in teaspoons: the spoon isn't asked again.
  const fromLabel = spoonMl({ spoon: { volumeMl: null }, labelRate, labelMeasures });
  const densityAsked =
    form !== 'liquid'
      ? 'of the powder, poured; or weigh level spoons'
      : basis === 'w/w' && n !== ''
        ? 'needed: the label is by weight. Weigh 100 mL, in kg, times 10'
        : 'weigh 100 mL, in kg, times 10';
  const own = useFieldArray({ control, name: 'ownMeasures', keyName: 'key' });
  return (
    <section className="section">
      <h2>Dosing and measuring</h2>
      <p className="quiet">
        The label’s rate as it is printed, in its own spoons and gallons, and how the product measures out.
      </p>
      <div className="fields" style={{ maxWidth: '58rem' }}>
        <div className="w6">
          <Field name="labelRate" label="Rate on the label" placeholder="1–2 tsp per gallon" />
        </div>
        <div className="w3">
          <Choice name="labelMeasures.spoon" label="Its spoons are" options={systems(spoonSystems)} />
        </div>
        <div className="w3">
          <Choice name="labelMeasures.gallon" label="Its gallons are" options={systems(gallonSystems)} />
        </div>
        <div className="w12">
          <RateRead />
        </div>
        <div className="w3">
          <Field
            name="densityKgPerL"
            label="Density, if known"
            suffix="kg/L"
            numeric
            helperText={densityAsked}
          />
        </div>
        <div className="w3">
          <Field
            name="solubilityGPerL"
            label="Dissolves, if known"
            suffix="g/L"
            numeric
            helperText="in cold water, for stock solutions"
          />
        </div>
        <div className="w2">
          <Field
            name="spoon.volumeMl"
            label="Level spoon of"
            suffix="mL"
            numeric
            placeholder={fromLabel === null ? undefined : String(Number(fromLabel.toPrecision(3)))}
          />
        </div>
        <div className="w4">
          <Field
            name="spoon.massesG"
            label="Five of them weighed, g"
            placeholder="4.7 4.8 4.75 4.8 4.7"
            figures
            helperText={<SpoonRead />}
          />
        </div>
      </div>
      <div className="stack" style={{ marginTop: '0.9rem' }}>
        {own.fields.map((f, i) => (
          <div className="fields" key={f.key} style={{ maxWidth: '58rem' }}>
            <div className="w4">
              <Field name={`ownMeasures.${i}.name`} label="Own measure" placeholder="cap, pump stroke" />
            </div>
            <div className="w2">
              <Field name={`ownMeasures.${i}.amount`} label="One holds" numeric />
            </div>
            <div className="w2">
              <Choice
                name={`ownMeasures.${i}.unit`}
                label="Unit"
                options={[
                  ['mL', 'mL'],
                  ['g', 'g'],
                ]}
              />
            </div>
            <div>
              <Button
                color="inherit"
                onClick={() => own.remove(i)}
                aria-label={`Remove own measure ${i + 1}`}
              >
                Remove
              </Button>
            </div>
          </div>
        ))}
        <div className="inline-row">
          <Button
            variant="outlined"
            color="secondary"
            onClick={() => own.append({ name: '', amount: '', unit: 'mL' })}
          >
            Add a measure of its own
          </Button>
          <span className="small quiet">a cap, a pump stroke, the scoop in the tub</span>
        </div>
        <Controller
          control={control}
          name="character"
          render={({ field }) => (
            <fieldset className="plain" aria-label="What it is">
              {characters.map((c) => (
                <FormControlLabel
                  key={c}
                  label={characterNames[c]}
                  control={
                    <Checkbox
                      color="secondary"
                      checked={field.value.includes(c)}
                      onChange={(_, on) =>
                        field.onChange(
                          on ? [...field.value, c] : field.value.filter((x: Character) => x !== c),
                        )
                      }
                    />
                  }
                />
              ))}
            </fieldset>
          )}
        />
      </div>
    </section>
  );
}

/** What the label's rate comes to, while it is typed. */
function RateRead() {
  const { control } = useFormContext<ProductFormInput>();
  const [text, measures, form, own] = useWatch({
    control,
    name: ['labelRate', 'labelMeasures', 'form', 'ownMeasures'],
  });
  if (!text) return <span className="small quiet">Empty when the label gives none.</span>;
  const ownMeasures = own.flatMap((m) => {
    const amount = numberIn(m.amount);
    return amount ? [{ name: m.name, amount, unit: m.unit }] : [];
  });
  const read = readRate(text, aroundProduct({ form, ownMeasures }, measures));
  if (!read.ok) {
    return (
      <span className="small" style={{ color: 'var(--ochre-text)' }}>
        {read.error} It is kept as printed; doses aren’t worked out from it, nor held against it.
      </span>
    );
  }
  const { low, high, unit, per } = read.value;
  const figure = (x: number) => String(Number(x.toPrecision(3)));
  const note = rateNote(text);
  return (
    <span className="small quiet">
      That is {low === high ? figure(low) : `${figure(low)} to ${figure(high)}`} {unit}{' '}
      {per === 'L' ? 'to a litre' : 'as it is'}
      {note && `; ${note}`}.
    </span>
  );
}

/** Bulk density and spread of the weighed spoons. */
function SpoonRead() {
  const { control } = useFormContext<ProductFormInput>();
  const [spoon, labelRate, labelMeasures] = useWatch({
    control,
    name: ['spoon', 'labelRate', 'labelMeasures'],
  });
  const volumeMl = spoonMl({ spoon: { volumeMl: numberIn(spoon.volumeMl) }, labelRate, labelMeasures });
  const massesG = spoonMasses.safeParse(spoon.massesG).data ?? [];
  if (!volumeMl || massesG.length < 2) return <>bulk density of a powder</>;
  const d = spoonDensity({ volumeMl, massesG });
  return (
    <>
      {formatFigure(d.gPerMl, 3)} g/mL, spoons differ by {formatFigure(d.cvPercent, 1)} %
    </>
  );
}

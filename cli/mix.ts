import { elementsIn, addElements, noElements, timesElements } from '~core/mixing/elements';
import { parseAnalysis } from '~core/mixing/analysisText';
import { amountOf } from '~core/mixing/density';
import { aroundProduct, readRate } from '~core/mixing/resolveRate';
import { roundToStep } from '~core/mixing/rounding';
import { mainElements } from '~core/model/element';
import type { LabelAnalysis } from '~core/model/product';
import { gallonSystems, spoonSystems } from '~core/quantity/units';
import { parseVolume } from '~core/quantity/volume';
import { numberOption, readArgs } from './options';
import { PlainError } from './plainError';

export const mixUsage = `palazzo mix --analysis N-P-K[,Ca,Mg,S] --rate "12 g / 5 gal" --volume "1 gal"
  [--scale-step G] [--density KG_PER_L] [--teaspoon us|metric|imperial] [--gallon us|imperial]
  [--form powder|liquid] [--json]
  P and K as the oxides labels print, the rest as elements, all % by weight; repeat --analysis and
  --rate (and --density) for several products in one solution; without --scale-step nothing is rounded`;

function readAnalysis(text: string): LabelAnalysis {
  const read = parseAnalysis(text);
  if (!read.ok) throw new PlainError(`--analysis “${text}”: ${read.error}`);
  return read.value;
}

const oneOf = <T extends string>(name: string, text: string, allowed: readonly T[]): T => {
  const match = allowed.find((a) => a === text);
  if (!match) throw new PlainError(`--${name} must be ${allowed.join(' or ')}, not “${text}”.`);
  return match;
};

const tidy = (x: number) => Number(x.toPrecision(12));

/** Runs `mix` and returns what goes to stdout. */
export function mix(args: string[]): string {
  const { values } = readArgs(args, {
    analysis: { type: 'string', multiple: true },
    rate: { type: 'string', multiple: true },
    density: { type: 'string', multiple: true },
    volume: { type: 'string' },
    'scale-step': { type: 'string' },
    teaspoon: { type: 'string', default: 'us' },
    gallon: { type: 'string', default: 'us' },
    form: { type: 'string', default: 'powder' },
    json: { type: 'boolean', default: false },
  });
  const measures = {
    spoon: oneOf('teaspoon', values.teaspoon, spoonSystems),
    gallon: oneOf('gallon', values.gallon, gallonSystems),
  };
  const form = oneOf('form', values.form, ['powder', 'liquid'] as const);
  const analyses = (values.analysis ?? []).map(readAnalysis);
  const rates = values.rate ?? [];
  if (analyses.length === 0) throw new PlainError('--analysis is missing.');
  if (rates.length !== analyses.length) {
    throw new PlainError(
      `There are ${analyses.length} --analysis and ${rates.length} --rate; each product needs one of both.`,
    );
  }
  if (values.volume === undefined) throw new PlainError('--volume is missing.');
  const volume = parseVolume(values.volume, measures);
  if (!volume.ok) throw new PlainError(`--volume: ${volume.error}`);
  const litres = volume.value;
  const densities = (values.density ?? []).map((d) => numberOption('density', d, { low: 1e-3, high: 25 })!);
  if (densities.length > 1 && densities.length !== analyses.length) {
    throw new PlainError('Give --density once, or once for each product.');
  }
  const step = numberOption('scale-step', values['scale-step'], { low: 1e-4, high: 1e5 }) ?? null;

  let sum = noElements();
  const products = analyses.map((analysis, i) => {
    const text = rates[i]!;
    const product = {
      form,
      ownMeasures: [],
      analysis,
      spoon: null,
      densityKgPerL: densities.length > 1 ? densities[i]! : (densities[0] ?? null),
    };
    const around = aroundProduct(product, measures, { tankL: litres, areaM2: null });
    const rate = readRate(text, around);
    if (!rate.ok) throw new PlainError(`--rate “${text}”: ${rate.error}`);
    const { low, high, unit, per } = rate.value;
    if (low !== high) throw new PlainError(`--rate “${text}” is a range; write the dose you mean.`);
    if (unit === 'piece') throw new PlainError(`--rate “${text}”: pieces can’t be weighed.`);
    const grams = amountOf(product, low * (per === 'L' ? litres : 1), unit, 'g');
    if (!grams.ok) throw new PlainError(`--rate “${text}” is a volume; give --density in kg/L to weigh it.`);
    const rounded = roundToStep(grams.value, step);
    sum = addElements(sum, elementsIn(product, rounded.measured, 'g')!);
    return {
      massG: tidy(grams.value),
      roundedG: rounded.measured,
      errorPercent: rounded.errorPercent,
    };
  });
  const perL = timesElements(sum, 1000 / litres).of;
  const elementsMgPerL = Object.fromEntries(mainElements.map((e) => [e, tidy(perL[e])]));
  if (values.json) {
    return JSON.stringify(
      products.length === 1 ? { ...products[0], elementsMgPerL } : { products, elementsMgPerL },
    );
  }
  const figure = (x: number) => String(Number(x.toPrecision(4)));
  return [
    ...products.map(
      (p, i) =>
        `${products.length > 1 ? `product ${i + 1}: ` : ''}${figure(p.massG)} g for ${figure(litres)} L${
          step === null
            ? ''
            : `, weighed ${p.roundedG} g (${p.errorPercent > 0 ? '+' : ''}${p.errorPercent.toFixed(1)} %)`
        }`,
    ),
    mainElements.map((e) => `${e} ${figure(perL[e])}`).join('  ') + '  mg/L',
  ].join('\n');
}

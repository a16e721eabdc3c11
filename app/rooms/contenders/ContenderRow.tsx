import Button from '@mui/material/Button';
import { useFormContext, useWatch } from 'react-hook-form';
import { type Money, formatMoney } from '~core/cost/money';
import { roleNames } from '~core/model/plan';
import type { Product } from '~core/model/product';
import { Tessera } from '../../ui/Tessera';
import { TreatmentRow } from './TreatmentRow';
import type { ContendersFormInput, UseInput } from './contendersForm';
import { type Alike, type Priced, howMuch, pricedUse, waterOf, whenOf } from './priced';

interface Props {
  index: number;
  products: readonly Product[];
  unitNoun: string;
  locked: boolean;
  /** tiles belong to codes, not to contenders */
  blind: boolean;
  /** what all doses of the trial share: said once above */
  alike: Alike;
  open: boolean;
  onOpen: (open: boolean) => void;
  remove: () => void;
  /** puts one with the same doses and conditions below */
  copy: () => void;
}

const sum = (all: readonly (Money | null)[]): Money | null =>
  all.length === 0 || all.includes(null)
    ? null
    : { minor: all.reduce((s, m) => s + m!.minor, 0), currency: all[0]!.currency };

/** One contender as a line: tile, name, what, how much, when, what it costs; opened, all of it can be changed. */
export function ContenderRow(p: Props) {
  const { index, products, unitNoun, blind, alike, open } = p;
  const { control } = useFormContext<ContendersFormInput>();
  const [t, spoon, gallon] = useWatch({
    control,
    name: [`treatments.${index}`, 'spoonSystem', 'gallonSystem'],
  });
  // Between a removal and the next drawing there is none.
  if (!t) return null;
  const uses = t.products.map((use) => {
    const product = products.find((x) => x.id === use.productId);
    const priced = pricedUse(use, product, {
      ...{ measures: { spoon, gallon }, unitNoun, conditions: t.conditions },
    });
    return { use, product, priced };
  });
  // Doses of different days are no dose together.
  const together = new Set(uses.map((u) => whenOf(u.use))).size === 1;
  const dose = together ? sum(uses.map((u) => u.priced.perDose)) : null;
  const whole = sum(uses.map((u) => u.priced.perUnit));
  const whens = uses.map((u) => (alike.when === null ? whenOf(u.use) : 'as all'));
  const called = t.name || `contender ${index + 1}`;
  return (
    <section className={`contender${open ? ' open' : ''}`} aria-label={`Contender ${t.name || index + 1}`}>
      <div className="contender-line">
        <span>{!blind && <Tessera index={index} size={26} />}</span>
        <span className="who">
          <strong>{called}</strong>
          <span className="small quiet">{t.role === 'test' ? '' : roleNames[t.role]}</span>
        </span>
        <span className="what">
          {uses.length === 0 && (
            <span className="small quiet">
              {t.role === 'untreated' ? 'nothing added' : 'no product: what it costs isn’t known'}
            </span>
          )}
          {uses.map(({ use, product, priced }, i) => (
            <span key={i} className="contender-use">
              <span>{product?.name ?? <span className="open-word">choose the product</span>}</span>
              <span className="num">
                {howMuch(use) || <span className="open-word">how much?</span>}
                <Beside use={use} priced={priced} water={alike.water === null} />
              </span>
              <span className="small quiet">{whens[i] === whens[i - 1] ? '' : whens[i]}</span>
            </span>
          ))}
        </span>
        <span className="n num a-dose" data-label="a dose">
          {dose ? formatMoney(dose) : '–'}
        </span>
        <span className="n num" data-label={`per ${unitNoun}`}>
          {whole ? formatMoney(whole) : '–'}
        </span>
        <Button
          size="small"
          color="secondary"
          aria-expanded={open}
          aria-label={`${open ? 'Close' : 'Open'} ${called}`}
          onClick={() => p.onOpen(!open)}
        >
          {open ? 'close' : 'open'}
        </Button>
      </div>
      {open && (
        <TreatmentRow {...{ index, products, unitNoun }} locked={p.locked} remove={p.remove} copy={p.copy} />
      )}
    </section>
  );
}

/** What a rate comes to, where that isn’t what it says, in how much water, or what is missing. */
function Beside({ use, priced, water }: { use: Partial<UseInput>; priced: Priced; water: boolean }) {
  if (priced.fault) return <span className="small open-word">{priced.fault}</span>;
  const plain = priced.comesTo.replace(' per L', '/L') === (use.amount ?? '').trim();
  const said = [plain ? '' : priced.comesTo, water ? waterOf(use) : ''].filter(Boolean).join(', in ');
  return said === '' ? null : <span className="small quiet">{said}</span>;
}

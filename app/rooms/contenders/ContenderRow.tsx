import { OpenButton } from '../../ui/OpenButton';
import { useFormContext, useWatch } from 'react-hook-form';
import { formatMoney } from '~core/quantity/money';
import { type Plan, roleNames } from '~core/model/plan';
import type { Product } from '~core/model/product';
import { Tessera } from '../../ui/Tessera';
import { TreatmentRow } from './TreatmentRow';
import { listNames } from '~core/quantity/format';
import type { ContendersFormInput, TreatmentInput, UseInput } from './contendersForm';
import { nextUse, productsNamed, rateNamed } from './newContender';
import {
  type Priced,
  alikeOf,
  dosedUses,
  howMuch,
  pricedUse,
  sayWay,
  summed,
  waterOf,
  whenOf,
} from './priced';

interface Props {
  index: number;
  products: readonly Product[];
  unitNoun: string;
  locked: boolean;
  /** tiles belong to codes, not to contenders */
  blind: boolean;
  /** what costs are added up in */
  home: Pick<Plan, 'currency' | 'mixing'>;
  open: boolean;
  onOpen: (open: boolean) => void;
  remove: () => void;
  /** puts one with the same doses and conditions below */
  copy: () => void;
}

/** One contender as a line; opened, all of it can be changed. */
export function ContenderRow({ remove, copy, locked, ...p }: Props) {
  const { index, products, unitNoun, open } = p;
  const name = useWatch({ name: `treatments.${index}.name` }) as string | undefined;
  return (
    <section className={`contender${open ? ' open' : ''}`} aria-label={`Contender ${name || index + 1}`}>
      <ContenderLine {...p} locked={locked} />
      {open && <TreatmentRow {...{ index, products, unitNoun, locked, remove, copy }} />}
    </section>
  );
}

/** Tile, name, what, how much, when, and what it costs; drawn with every key, the fields beneath it aren’t. */
function ContenderLine(p: Omit<Props, 'remove' | 'copy'>) {
  const { index, products, unitNoun, blind, home, open, onOpen, locked } = p;
  const { control, getValues, setValue } = useFormContext<ContendersFormInput>();
  /** The products a contender is called after, how much of them still to be said. */
  const give = (named: readonly Product[]) => {
    const last = getValues('treatments').flatMap((x) => x.products)[0] ?? null;
    setValue(
      `treatments.${index}.products`,
      named.map((product) => ({
        ...nextUse(product, last),
        strengthPercent: rateNamed(getValues(`treatments.${index}.name`)),
      })),
      { shouldDirty: true },
    );
    onOpen(true);
  };
  const [treatments, measures] = useWatch({
    control,
    name: ['treatments', 'mixing.measures'],
  });
  const alike = alikeOf(dosedUses(treatments, products));
  const t = treatments[index];
  // Between a removal and the next drawing there is none.
  if (!t) return null;
  const uses = t.products.map((use) => {
    const product = products.find((x) => x.id === use.productId);
    const priced = pricedUse(use, product, {
      ...{ measures, unitNoun, conditions: t.conditions },
    });
    return { use, product, priced };
  });
  // Doses of different days are no dose together.
  const together = new Set(uses.map((u) => whenOf(u.use))).size === 1;
  const dose = together
    ? summed(
        uses.map((u) => u.priced.perDose),
        home,
      )
    : null;
  const whole = summed(
    uses.map((u) => u.priced.perUnit),
    home,
  );
  const whens = uses.map(({ use }) => (alike.when === null || use.way === 'medium' ? whenOf(use) : 'as all'));
  const called = t.name || `contender ${index + 1}`;
  return (
    <div className="contender-line">
      <span>{!blind && <Tessera index={index} size={26} />}</span>
      <span className="who">
        <strong>{called}</strong>
        <span className="small quiet">{t.role === 'test' ? '' : roleNames[t.role]}</span>
      </span>
      <span className="what">
        {uses.length === 0 && <NothingYet {...{ t, products }} give={locked ? null : give} />}
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
      <OpenButton {...{ called, open, onOpen }} />
    </div>
  );
}

interface NothingYetProps {
  t: Pick<TreatmentInput, 'name' | 'role'>;
  products: readonly Product[];
  give: ((named: readonly Product[]) => void) | null;
}

/** A contender without a product: nothing is added, or what it is called after is a press away. */
function NothingYet({ t, products, give }: NothingYetProps) {
  const named = t.role === 'untreated' || give === null ? [] : productsNamed(products, t.name);
  if (named.length === 0)
    return (
      <span className="small quiet">
        {t.role === 'untreated' ? 'nothing added' : 'no product: what it costs isn’t known'}
      </span>
    );
  return (
    <button type="button" className="link open-word" onClick={() => give!(named)}>
      {listNames(named.map((p) => p.name))}: how much?
    </button>
  );
}

/** What a rate comes to, where that isn’t what it says, in how much water, or what is missing. */
function Beside({ use, priced, water }: { use: Partial<UseInput>; priced: Priced; water: boolean }) {
  if (priced.fault) return <span className="small open-word">{priced.fault}</span>;
  const plain = priced.comesTo.replace(' per L', '/L') === (use.amount ?? '').trim();
  const caption = [plain ? '' : priced.comesTo, water ? waterOf(use) : ''].filter(Boolean).join(', in ');
  const all = [caption, sayWay(use)].filter(Boolean).join(', ');
  return all === '' ? null : <span className="small quiet">{all}</span>;
}

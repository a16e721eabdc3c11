import type { Plan, Trait } from '~core/model/plan';
import { formatFigure, sentenceCase } from '~core/quantity/format';
import { type FactorialFinding, levelName, saysFactorial } from '~core/looks/factorialFinding';
import { interactionLines } from '~core/picture/interaction';
import { Picture } from '../../ui/pictures/Picture';
import { usePictureRoom } from '../../ui/pictures/usePictureRoom';
import { ReportTable } from '../../ui/Report';
import { nameIn } from './findingData';

interface Props {
  plan: Plan;
  trait: Trait;
  factorials: readonly FactorialFinding[];
}

const titles: Record<FactorialFinding['kind'], string> = {
  factors: 'Does one work the same with the other?',
  settings: 'Settings of main plots',
  crops: 'Contenders on each crop',
};

/** Factors, settings of main plots and crops within units: whether one works the same with every level of the other. */
export function FactorsView({ plan, trait, factorials }: Props) {
  if (factorials.length === 0) {
    return (
      <p className="quiet">
        Nothing is crossed here, or a combination has no value yet. Factors are set up in Contenders, settings
        of main plots in Layout, crops within a {plan.unitNoun} in Question.
      </p>
    );
  }
  return (
    <div className="stack">
      {factorials.map((f) => (
        <OneFactorial key={f.kind} plan={plan} trait={trait} factorial={f} />
      ))}
    </div>
  );
}

function OneFactorial({
  plan,
  trait,
  factorial: f,
}: {
  plan: Plan;
  trait: Trait;
  factorial: FactorialFinding;
}) {
  const nameOf = nameIn(plan);
  const called = (factor: string, level: string) => levelName(plan, nameOf, factor, level);
  const [first, second] = [f.names[0]!, f.names[1]!];
  const cells = f.cells.map((c) => ({
    ...c,
    levels: [called(first, c.levels[0]), called(second, c.levels[1])] as const,
  }));
  const room = usePictureRoom();
  // Crops along the axis, a line for each contender.
  const drawn =
    f.kind === 'crops' ? cells.map((c) => ({ ...c, levels: [c.levels[1], c.levels[0]] as const })) : cells;
  const names = f.kind === 'crops' ? ([second, first] as const) : ([first, second] as const);
  const sentences = saysFactorial(f);
  const along = [...new Set(drawn.map((c) => c.levels[0]))];
  const down = [...new Set(drawn.map((c) => c.levels[1]))];
  const what = trait.unit ? `${trait.name.toLowerCase()}, ${trait.unit}` : trait.name.toLowerCase();
  return (
    <section>
      <h2>{titles[f.kind]}</h2>
      <div className="findings-grid">
        <Picture
          drawing={interactionLines({ names, cells: drawn, what }, room)}
          caption={`Means of ${names[0]} × ${names[1]}. Lines side by side: the one works the same with every level of the other.`}
          label={sentences[0] ?? titles[f.kind]}
          file={`${plan.code} ${trait.name} ${names.join(' by ')}`}
        />
        <div className="stack">
          <ul className="report-list">
            {sentences.map((s) => (
              <li key={s}>{s}</li>
            ))}
          </ul>
          <div className="as-rows-scroll">
            <table className="ledger">
              <caption className="small quiet">Means, {what}</caption>
              <thead>
                <tr>
                  <th scope="col">{sentenceCase(names[1])}</th>
                  {along.map((a) => (
                    <th scope="col" key={a} className="num">
                      {a}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {down.map((d) => (
                  <tr key={d}>
                    <th scope="row">{d}</th>
                    {along.map((a) => {
                      const cell = drawn.find((c) => c.levels[0] === a && c.levels[1] === d);
                      return (
                        <td key={a} className="num">
                          {cell ? formatFigure(cell.mean, Math.max(1, trait.decimals)) : '–'}
                        </td>
                      );
                    })}
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
          <details className="small">
            <summary>F tests</summary>
            <ReportTable
              table={{
                type: 'table',
                columns: [
                  { head: 'term', numeric: false },
                  { head: 'F', numeric: true },
                  { head: 'df', numeric: true },
                  { head: 'p', numeric: true },
                ],
                rows: f.terms.map((t) => ({
                  cells: [
                    { type: 'text', text: t.term.replaceAll(':', ' × ') },
                    { type: 'figure', value: t.f, decimals: 2 },
                    { type: 'text', text: `${t.df1}, ${t.df2}` },
                    { type: 'p', value: t.p },
                  ],
                })),
              }}
            />
            <p className="quiet">
              Type II, each term after all that don’t contain it
              {f.kind === 'factors'
                ? ''
                : f.kind === 'crops'
                  ? `; contenders are tested against ${plan.unitNoun}s, crops within them`
                  : '; settings are tested against main plots, all else within them'}
              .
            </p>
          </details>
        </div>
      </div>
    </section>
  );
}

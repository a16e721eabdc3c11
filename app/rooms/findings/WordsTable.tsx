import type { Plan, Unit } from '~core/model/plan';
import { planIndex } from '~core/plan/planIndex';
import { TesseraName } from '../../ui/Tessera';

interface Props {
  plan: Plan;
  words: readonly { unit: Unit; round: string; text: string }[];
}

/** What was written for a trait taken in words: to be read, unit by unit. */
export function WordsTable({ plan, words }: Props) {
  const of = planIndex(plan);
  return (
    <table className="ledger as-rows" style={{ marginTop: '1.2rem' }}>
      <thead>
        <tr>
          <th>{plan.unitNoun}</th>
          <th>contender</th>
          <th>round</th>
          <th>what was seen</th>
        </tr>
      </thead>
      <tbody>
        {words.map((w) => (
          <tr key={`${w.unit.id}${w.round}`}>
            <td className="num" data-label={plan.unitNoun}>
              {w.unit.code}
            </td>
            <td data-label="contender">
              <TesseraName
                index={of.treatmentOrder(w.unit.treatmentId)}
                name={of.treatment(w.unit.treatmentId)?.name ?? ''}
                size={16}
              />
            </td>
            <td className="small quiet" data-label="round">
              {w.round}
            </td>
            <td data-label="what was seen">{w.text}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

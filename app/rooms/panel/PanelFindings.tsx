import { type PanelSession, asksScores } from '~core/model/panel';
import type { Plan } from '~core/model/plan';
import { planIndex } from '~core/plan/planIndex';
import { formatFigure } from '~core/quantity/format';
import type { PanelOutcome, ScoredThing } from '~core/sensory/panelOutcome';
import type { PanelWords } from '~core/sensory/sayPanel';
import { TesseraName } from '../../ui/Tessera';
import { ScoreStrip } from './ScoreStrip';

interface Props {
  plan: Plan;
  session: PanelSession;
  outcome: PanelOutcome;
  words: PanelWords;
  isHeadline: boolean;
}

/** What a revealed session shows: the sentence, every score as its tile, the words. */
export function PanelFindings({ plan, session, outcome, words, isHeadline }: Props) {
  const of = planIndex(plan);
  const name = (id: string) => (
    <TesseraName index={of.treatmentOrder(id)} name={of.treatment(id)?.name ?? '?'} />
  );
  return (
    <>
      {!isHeadline && <p>{words.headline}</p>}
      {outcome.scored.map((thing, i) => (
        <div key={thing.name} style={{ margin: '0.8rem 0' }}>
          {outcome.scored.length > 1 && <h3>{thing.name}</h3>}
          <ScoreStrip
            steps={asksScores(session.kind) ? session.attributes[i]!.steps : null}
            thing={thing}
            nameOf={name}
            indexOf={of.treatmentOrder}
          />
          <FiguresTable thing={thing} ranking={session.kind === 'ranking'} name={name} />
        </div>
      ))}
      {words.notes.length > 0 && (
        <ul className="report-list">
          {words.notes.map((n) => (
            <li key={n}>{n}</li>
          ))}
        </ul>
      )}
      {outcome.words.length > 0 && (
        <>
          <h3>Words</h3>
          <table className="ledger as-rows">
            <thead>
              <tr>
                <th>word</th>
                {outcome.treatments.map((t) => (
                  <th key={t}>{name(t)}</th>
                ))}
              </tr>
            </thead>
            <tbody>
              {outcome.words.map((w) => (
                <tr key={w.word}>
                  <td>{w.word}</td>
                  {outcome.treatments.map((t) => {
                    const proportion = w.treatments.find((x) => x.id === t);
                    return (
                      <td key={t} className="num" data-label={of.treatment(t)?.name}>
                        {proportion && proportion.n > 0 ? (
                          <span>
                            {proportion.k}/{proportion.n}{' '}
                            <span className="unit">
                              {formatFigure(100 * proportion.low!, 0)} to{' '}
                              {formatFigure(100 * proportion.high!, 0)} %
                            </span>
                          </span>
                        ) : (
                          '–'
                        )}
                      </td>
                    );
                  })}
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
      {words.smallPrint.map((s) => (
        <p className="small quiet" key={s}>
          {s}
        </p>
      ))}
    </>
  );
}

function FiguresTable({
  thing,
  ranking,
  name,
}: {
  thing: ScoredThing;
  ranking: boolean;
  name: (id: string) => React.ReactNode;
}) {
  return (
    <table className="ledger as-rows" style={{ marginTop: '0.5rem' }}>
      <thead>
        <tr>
          <th>contender</th>
          <th className="n">servings</th>
          <th className="n">{ranking ? 'middle place' : 'middle score'}</th>
          <th className="n">mean</th>
          <th className="n">rank sum</th>
        </tr>
      </thead>
      <tbody>
        {thing.treatments.map((t) => (
          <tr key={t.id}>
            <td>{name(t.id)}</td>
            <td className="n" data-label="servings">
              {t.n}
            </td>
            <td className="n" data-label={ranking ? 'middle place' : 'middle score'}>
              {t.n === 0 ? '–' : formatFigure(t.median, 1)}
            </td>
            <td className="n" data-label="mean">
              {t.n === 0 ? '–' : formatFigure(t.mean, 1)}
            </td>
            <td className="n" data-label="rank sum">
              {t.rankSum === null ? '–' : formatFigure(t.rankSum, 1)}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

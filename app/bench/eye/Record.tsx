import Button from '@mui/material/Button';
import Papa from 'papaparse';
import { type EyeAnswer, type Game, byWeek, callRecord, gameNames, rightOf } from '~core/eye/record';
import type { Proportion } from '~core/stats/proportion';
import { shortDate } from '../../ui/clock';
import { download } from '../../ui/download';

const percent = ({ proportion }: Proportion) =>
  proportion === null ? '–' : `${Math.round(100 * proportion)} %`;
const range = ({ low, high }: Proportion) =>
  low === null || high === null ? '' : `${Math.round(100 * low)}–${Math.round(100 * high)}`;

/** One's own record of a game: how often right, and of calls beside what the test gets on the same. */
export function Record({ answers, game }: { answers: readonly EyeAnswer[]; game: Game }) {
  const own = answers.filter((a) => a.game === game);
  const right = rightOf(own);
  const weeks = byWeek(own).slice(-6);
  const save = () => {
    const rows = answers.map(({ call, faults, ...a }) => ({
      ...a,
      ...{ differs: call?.differs, eye: call?.eye, test: call?.test },
      ...{ faults: faults?.there, hit: faults?.hit, wrong: faults?.wrong },
    }));
    download(new Blob([Papa.unparse(rows)], { type: 'text/csv' }), 'palazzo-eye.csv');
  };
  return (
    <aside aria-label="Your record">
      <h2>
        {gameNames[game]} so far, {own.length} {own.length === 1 ? 'case' : 'cases'}
      </h2>
      <table className="ledger">
        <tbody>
          <tr>
            <td>right</td>
            <td className="n">
              {percent(right)} <span className="quiet">{range(right)}</span>
            </td>
          </tr>
          {game === 'call' &&
            callRecord(own).flatMap((r) => [
              <tr key={r.what}>
                <td>your eye {r.what}</td>
                <td className="n">
                  {percent(r.eye)} <span className="quiet">{range(r.eye)}</span>
                </td>
              </tr>,
              <tr key={`test ${r.what}`}>
                <td className="quiet">a fair test on the same</td>
                <td className="n">{percent(r.test)}</td>
              </tr>,
            ])}
        </tbody>
      </table>
      {weeks.length > 1 && (
        <table className="ledger" style={{ marginTop: '1rem' }}>
          <thead>
            <tr>
              <th>week from</th>
              <th className="n">cases</th>
              <th className="n">right</th>
            </tr>
          </thead>
          <tbody>
            {weeks.map((w) => (
              <tr key={w.week}>
                <td>{shortDate(w.week)}</td>
                <td className="n">{w.right.n}</td>
                <td className="n">{percent(w.right)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <p className="small quiet" style={{ marginTop: '0.8rem' }}>
        A right answer makes the next case harder, a wrong one easier, so that about three of four are right.
        Intervals: Wilson, 95&nbsp;%.
      </p>
      {answers.length > 0 && (
        <Button size="small" color="secondary" onClick={save}>
          All answers (CSV)
        </Button>
      )}
    </aside>
  );
}

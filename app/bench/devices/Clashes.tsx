import Button from '@mui/material/Button';
import { useRevalidator } from 'react-router';
import { type Clash, settleClash } from '../../store/clashes';
import { announce } from '../../ui/announce';
import { shortTime } from '../../ui/clock';

/** Trials whose plan is another on another device: both side by side, and one is chosen. */
export function Clashes({ clashes }: { clashes: readonly Clash[] }) {
  const revalidator = useRevalidator();
  const settle = async ({ trialId, from, isHere }: Clash, chosen: 'mine' | 'theirs') => {
    const settled = await settleClash(trialId, chosen);
    announce(
      settled.ok
        ? chosen === 'mine'
          ? isHere
            ? `The plan here stays; ${from} is told.`
            : 'It isn’t taken; whoever has it keeps it.'
          : isHere
            ? `The plan of ${from} is taken; Undo in the trial brings yours back.`
            : 'The trial is on the bench.'
        : settled.error.tag === 'sealed'
          ? 'The plan here is sealed: it can’t be given up.'
          : 'That is settled already.',
    );
    await revalidator.revalidate();
  };
  return clashes.map((c) =>
    !c.isHere ? (
      <section key={c.trialId} className="note open" aria-label={`A trial of ${c.from}`}>
        <h2>
          {c.from} has a trial that isn’t here: “{c.question}”
        </h2>
        <p>It may not bring trials unasked ({shortTime(c.at)}). Take it onto this bench?</p>
        <div className="inline-row" style={{ marginTop: '0.6rem' }}>
          <Button variant="outlined" color="secondary" onClick={() => void settle(c, 'theirs')}>
            Take it
          </Button>
          <Button color="inherit" onClick={() => void settle(c, 'mine')}>
            Leave it
          </Button>
        </div>
      </section>
    ) : (
      <section key={c.trialId} className="note open" aria-label={`Two plans of ${c.question}`}>
        <h2>Two plans of “{c.question}”</h2>
        <p>
          Changed here and on {c.from} ({shortTime(c.at)}). Nothing was overwritten; choose one.
          {c.sealedHere && ' The plan here is sealed: it stays.'}
          {c.sealedThere && !c.sealedHere && ` The one of ${c.from} is sealed.`}
        </p>
        <div className="scroll-x">
          <table className="ledger as-rows">
            <thead>
              <tr>
                <th>part</th>
                <th>here</th>
                <th>{c.from}</th>
              </tr>
            </thead>
            <tbody>
              {c.differences.map((d) => (
                <tr key={d.what}>
                  <td>{d.what}</td>
                  <td data-label="here">{d.mine}</td>
                  <td data-label={c.from}>{d.theirs}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        <div className="inline-row" style={{ marginTop: '0.6rem' }}>
          <Button variant="contained" onClick={() => void settle(c, 'mine')}>
            Keep the plan here
          </Button>
          {!c.sealedHere && (
            <Button variant="outlined" color="secondary" onClick={() => void settle(c, 'theirs')}>
              Take the plan of {c.from}
            </Button>
          )}
        </div>
      </section>
    ),
  );
}

import { titled } from '../../ui/title';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { Link, useLoaderData } from 'react-router';
import { sessionOf } from '~core/sensory/sessions';
import { listNames } from '~core/quantity/format';
import { planIndex } from '~core/plan/planIndex';
import { panelKeyOf } from '../../store/panelKeys';
import { loadTrial } from '../../store/trials';
import { RoomHead } from '../../ui/RoomHead';
import { download } from '../../ui/download';
import { OnlyHelper } from '../OnlyHelper';
import '../prints/labels.css';
import type { RoomArgs } from '../roomArgs';
import { servingRules } from './cautions';

interface CardArgs extends RoomArgs {
  params: { trialId?: string; sessionId?: string };
}

export const meta = () => titled('Server’s card');

export async function clientLoader({ params }: CardArgs) {
  const { row, shown, state } = await loadTrial(params.trialId);
  const held = sessionOf(state, params.sessionId ?? '');
  if (!held) throw new Response('There is no such session in this trial.', { status: 404 });
  return {
    plan: shown.plan,
    session: held.session,
    revealed: held.revealed !== null,
    key: held.revealed?.key ?? (await panelKeyOf(row.id, held.session.id)) ?? null,
  };
}

/** Who gets what when: for whoever fills the cups, and for nobody who tastes. */
export default function ServersCard() {
  const { plan, session, key, revealed } = useLoaderData<typeof clientLoader>();
  const [open, setOpen] = useState(revealed);
  const back = (
    <Button component={Link} to={`/trial/${plan.id}/panel`} color="secondary">
      Back to the panel
    </Button>
  );
  const of = planIndex(plan);
  const nameOf = (sample: number) => of.treatment(key?.samples[sample]?.treatmentId ?? '')?.name ?? '?';
  const unitsOf = (sample: number) =>
    listNames((key?.samples[sample]?.unitIds ?? []).map((id) => of.unit(id)?.code ?? '?'));
  const sampleOf = new Map(key?.cups.map((c) => [c.code, c.sample]));
  const cups = (code: string) => sampleOf.get(code) ?? -1;
  const twice = (sample: number) =>
    key!.samples.filter((s) => s.treatmentId === key!.samples[sample]?.treatmentId).length > 1;
  const called = (sample: number) => `${nameOf(sample)}${twice(sample) ? ` (sample ${sample + 1})` : ''}`;
  return (
    <main className="labels-page" id="room">
      <RoomHead
        title="The server’s card"
        actions={
          <span className="inline-row">
            {back}
            {open && key && (
              <>
                <Button
                  color="secondary"
                  onClick={() =>
                    download(
                      new Blob([JSON.stringify(key, null, 1)], { type: 'application/json' }),
                      `${plan.code}-server.json`,
                    )
                  }
                >
                  Save as a file
                </Button>
                <Button variant="contained" onClick={() => window.print()}>
                  Print the card
                </Button>
              </>
            )}
          </span>
        }
      >
        {session.name} · {plan.question}
      </RoomHead>
      {!key ? (
        <p className="note open">
          What is in the cups isn’t known on this device. The server’s file, saved where the session was
          started, brings it: read it in on the Panel page.
        </p>
      ) : !open ? (
        <OnlyHelper onShow={() => setOpen(true)}>
          This card says what is in every cup. Who tastes looks away now; who serves prints it and doesn’t
          taste. Serving and tasting alone works too: fill and code the cups, mix them up behind your back
          within each taster’s row, and don’t look at the card again.
        </OnlyHelper>
      ) : (
        <>
          <section className="section">
            <h2>How to serve</h2>
            <ul className="report-list">
              {servingRules.map((r) => (
                <li key={r}>{r}</li>
              ))}
            </ul>
          </section>
          <section className="section">
            <h2>What to prepare</h2>
            <table className="ledger as-rows">
              <thead>
                <tr>
                  <th>from</th>
                  <th>{plan.unitNoun}</th>
                  <th>codes to write</th>
                </tr>
              </thead>
              <tbody>
                {key.samples.map((_, s) => (
                  <tr key={s}>
                    <td>
                      <strong>{called(s)}</strong>
                    </td>
                    <td data-label={plan.unitNoun} className="num small">
                      {unitsOf(s)}
                    </td>
                    <td data-label="codes" className="num">
                      {key.cups
                        .filter((c) => c.sample === s)
                        .map((c) => c.code)
                        .join(' ')}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
          <section className="section">
            <h2>Who gets what, in this order</h2>
            {session.tasters.map((t) => (
              <div key={t.name} style={{ breakInside: 'avoid' }}>
                <h3 style={{ marginTop: '0.9rem' }}>{t.name}</h3>
                <table className="ledger">
                  <tbody>
                    {t.sets.map((set, s) => (
                      <tr key={s}>
                        {t.sets.length > 1 && <td className="num quiet">{s + 1}.</td>}
                        <td>
                          {set.cups.map((code, i) => (
                            <span key={code} style={{ marginRight: '1.4rem', whiteSpace: 'nowrap' }}>
                              <span className="quiet small">{i + 1}</span>{' '}
                              <strong className="num">{code}</strong>{' '}
                              <span className="small">{called(cups(code))}</span>
                            </span>
                          ))}
                        </td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              </div>
            ))}
          </section>
        </>
      )}
    </main>
  );
}

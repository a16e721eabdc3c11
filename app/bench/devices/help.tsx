import { titled } from '../../ui/title';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { useEffect, useState } from 'react';
import { useLocation } from 'react-router';
import { safeJson } from '~core/formats/safeJson';
import { type Guest, type Sent, forgetSent, fromHost, guestBy, sentBy, tellHost } from '../../lan/guest';
import { saySent } from '../../lan/saySent';
import { Jobs } from '../../lan/jobs';

export const meta = () => titled('Helping');

/** What a ticked task is called among what was sent. */
const nameOf = (trialId: string, task: string) => `${trialId}/${task}`;

/** Tasks that are done by the host's word, as they are called among what was sent. */
const doneIn = (jobs: Jobs): ReadonlySet<string> =>
  new Set(
    jobs.trials.flatMap((t) =>
      t.tasks.flatMap((k) => (k.task !== null && k.done ? [nameOf(t.id, k.task)] : [])),
    ),
  );

const EVERY_MS = 3000;

const jobsIn = (text: string): Jobs | null => {
  const read = safeJson(text);
  const jobs = read.ok ? Jobs.safeParse(read.value) : null;
  return jobs?.success ? jobs.data : null;
};

/** A helper's page: which jar goes to which units and what is to be done, and nothing else of the bench. */
export default function Help() {
  const { hash } = useLocation();
  const [guest, setGuest] = useState<Guest | null>(null);
  const [jobs, setJobs] = useState<Jobs | null>(null);
  const [sent, setSent] = useState<readonly Sent[]>([]);
  const [fault, setFault] = useState('');

  useEffect(() => {
    let gone = false;
    guestBy(hash, 'Helper').then(
      (g) => {
        if (gone) return;
        if (g) setGuest(g);
        else setFault('The link isn’t whole. Scan its code once more.');
      },
      (e: Error) => !gone && setFault(e.message),
    );
    return () => {
      gone = true;
    };
  }, [hash]);

  useEffect(() => {
    if (!guest) return;
    let timer: ReturnType<typeof setTimeout>;
    let gone = false;
    const look = async () => {
      try {
        for (const head of await fromHost(guest)) {
          const came = head.kind === 'jobs' ? jobsIn(head.text) : null;
          if (!came) continue;
          forgetSent(guest, doneIn(came));
          if (!gone) setJobs(came);
        }
        if (!gone) setSent(sentBy(guest));
        setFault('');
      } catch (e) {
        setFault((e as Error).message);
      }
      if (!gone) timer = setTimeout(() => void look(), EVERY_MS);
    };
    void look();
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [guest]);

  const tick = async (trialId: string, task: string) => {
    if (!guest) return;
    try {
      await tellHost(guest, nameOf(trialId, task), { kind: 'ticked', trialId, task });
      setSent(sentBy(guest));
    } catch (e) {
      setFault((e as Error).message);
    }
  };
  return (
    <main className="page-message">
      <h1>What is to be done</h1>
      {fault !== '' && (
        <p role="alert" className="warning">
          {fault}
        </p>
      )}
      {jobs === null && fault === '' && <p>Waiting for the desk …</p>}
      {jobs?.trials.length === 0 && <p>Nothing is to be done today.</p>}
      {jobs?.trials.map((t) => (
        <section key={t.id} aria-label={t.title} style={{ marginTop: '1.2rem' }}>
          <h2>{t.title}</h2>
          {t.tasks.length > 0 && (
            <ul style={{ listStyle: 'none', padding: 0 }}>
              {t.tasks.map((k) => {
                const own = k.task === null ? undefined : sent.find((s) => s.what === nameOf(t.id, k.task!));
                // The host says what is done; what it set aside can be sent once more.
                const onItsWay = own !== undefined && own.state !== 'arrived';
                return (
                  <li key={k.what}>
                    {k.task === null ? (
                      <span>{k.what}</span>
                    ) : (
                      <FormControlLabel
                        control={
                          <Checkbox
                            checked={k.done}
                            indeterminate={onItsWay && !k.done}
                            disabled={k.done || onItsWay}
                            onChange={() => void tick(t.id, k.task!)}
                          />
                        }
                        label={k.at ? `${k.at}: ${k.what}` : k.what}
                      />
                    )}
                    {own && !k.done && (
                      <div role="status" className="small quiet">
                        {saySent(own, 'Kept at the desk.')}
                      </div>
                    )}
                    {k.atHand && <div className="small quiet">To have at hand: {k.atHand}</div>}
                    {k.caution && <div className="small warning">{k.caution}</div>}
                  </li>
                );
              })}
            </ul>
          )}
          <table className="ledger">
            <thead>
              <tr>
                <th>jar</th>
                <th>goes to</th>
              </tr>
            </thead>
            <tbody>
              {t.jars.map((j) => (
                <tr key={j.jar}>
                  <td>
                    <strong>{j.jar}</strong>
                  </td>
                  <td className="num">{j.units.join(', ')}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      ))}
    </main>
  );
}

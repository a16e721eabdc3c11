import Button from '@mui/material/Button';
import { useState } from 'react';
import { Link } from 'react-router';
import { PanelKey, asksScores, panelKinds } from '~core/model/panel';
import type { Plan } from '~core/model/plan';
import { listNames, sentenceCase } from '~core/quantity/format';
import { isDone } from '~core/sensory/sessions';
import { shortTime } from '../../ui/clock';
import { usePost } from '../../form/usePost';
import { FileButton } from '../../ui/FileButton';
import { announce } from '../../ui/announce';
import { OtherPhones } from './OtherPhones';
import { PanelFindings } from './PanelFindings';
import type { SessionShown } from './panelData';

/** Bytes of a server's card: more than any has. */
const MOST_KEY = 1_000_000;

interface Props {
  plan: Plan;
  shown: SessionShown;
  /** its sentence stands above as the room's heading */
  isHeadline: boolean;
}

/** One session: who is done, its cards and pages, the reveal, and what it shows. */
export function SessionView({ plan, shown, isHeadline }: Props) {
  const { held, keyHere, outcome, words } = shown;
  const { session, revealed } = held;
  const post = usePost();
  const [asked, setAsked] = useState(false);
  const [away, setAway] = useState(false);
  const done = session.tasters.map((_, t) => isDone(held, t));
  const given = (t: number) => held.answers.filter((a) => a.body.taster === t).length;
  const open = session.tasters.filter((_, t) => !done[t]).map((t) => t.name);
  const to = (page: string) => `/trial/${plan.id}/${page}/${session.id}`;
  const takeKey = async ([file]: File[]) => {
    if (file!.size > MOST_KEY) return announce('That file isn’t a server’s card: it is far too large.');
    const read = PanelKey.safeParse(
      await file!.text().then(
        (t) => JSON.parse(t) as unknown,
        () => null,
      ),
    );
    if (!read.success) return announce('That file isn’t a server’s card.');
    post({ intent: 'takeKey', key: read.data });
  };
  return (
    <section className="section" aria-label={session.name}>
      <div className="inline-row">
        <h2>{session.name}</h2>
        <span className="small quiet">
          {sentenceCase(panelKinds[session.kind])}; {listNames(session.senses)}
          {revealed && `; revealed ${shortTime(revealed.at)}`}
        </span>
      </div>
      {revealed && !revealed.holds && (
        <p className="note bad">
          What the reveal says was in the cups isn’t what the session began with: its key was changed. Don’t
          trust these figures.
        </p>
      )}
      {outcome && words ? (
        <PanelFindings
          plan={plan}
          session={session}
          outcome={outcome}
          words={words}
          isHeadline={isHeadline}
        />
      ) : (
        <>
          <table className="ledger as-rows" style={{ margin: '0.6rem 0' }}>
            <tbody>
              {session.tasters.map((t, i) => (
                <tr key={t.name}>
                  <td>
                    <strong>{t.name}</strong>
                  </td>
                  <td className="small">
                    {done[i] ? 'done' : given(i) === 0 ? 'not begun' : `${given(i)} answered`}
                  </td>
                  <td>
                    <Link to={`${to('taste')}/${i + 1}`}>
                      {done[i] ? 'Look again' : `Open ${t.name}’s page`}
                    </Link>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <div className="inline-row">
            <Button component={Link} to={to('servers-card')} variant="outlined" color="secondary">
              Server’s card
            </Button>
            <Button component={Link} to={to('score-sheets')} color="secondary">
              Score sheets
            </Button>
            {session.presented !== 'photos' && (
              <Button color="secondary" onClick={() => setAway(!away)} aria-expanded={away}>
                On other phones …
              </Button>
            )}
            {keyHere ? (
              !asked && (
                <Button
                  variant={open.length === 0 ? 'contained' : 'text'}
                  color={open.length === 0 ? 'primary' : 'inherit'}
                  size={open.length === 0 ? 'medium' : 'small'}
                  onClick={() => setAsked(true)}
                >
                  Reveal the cups
                </Button>
              )
            ) : (
              <FileButton
                label="Read the server’s file"
                accept=".json,application/json"
                onFiles={takeKey}
                variant="outlined"
                color="secondary"
                testId="panel-key"
              />
            )}
          </div>
          {!keyHere && (
            <p className="small quiet">
              What is in the cups is known on the device where the session was started, or by the server’s
              file.
            </p>
          )}
          {asked && (
            <div className="note open" style={{ marginTop: '0.8rem' }}>
              <p className="small">
                {open.length > 0 && (
                  <>
                    <strong>{listNames(open)}</strong> {open.length === 1 ? 'isn’t' : 'aren’t'} done; answers
                    close with the reveal.{' '}
                  </>
                )}
                It is written into the log with the time and can’t be taken back.
              </p>
              <div className="inline-row" style={{ marginTop: '0.4rem' }}>
                <Button
                  size="small"
                  variant="contained"
                  onClick={() => post({ intent: 'reveal', sessionId: session.id })}
                >
                  Reveal them now
                </Button>
                <Button size="small" color="inherit" onClick={() => setAsked(false)}>
                  Not yet
                </Button>
              </div>
            </div>
          )}
          {away && <OtherPhones plan={plan} session={session} />}
        </>
      )}
      {!revealed && asksScores(session.kind) && session.tasters.length === 1 && (
        <p className="small quiet">One taster: it will give numbers and words, no winner.</p>
      )}
    </section>
  );
}

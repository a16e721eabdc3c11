import { titled } from '../../ui/title';
import Button from '@mui/material/Button';
import { Link, useLoaderData } from 'react-router';
import { asksScores } from '~core/model/panel';
import { sessionOf } from '~core/sensory/sessions';
import { loadTrial } from '../../store/trials';
import { RoomHead } from '../../ui/RoomHead';
import '../prints/labels.css';
import type { RoomArgs } from '../roomArgs';
import './ScoreSheets.css';

interface SheetArgs extends RoomArgs {
  params: { trialId?: string; sessionId?: string };
}

export const meta = () => titled('Score sheets');

export async function clientLoader({ params }: SheetArgs) {
  const { state } = await loadTrial(params.trialId);
  const held = sessionOf(state, params.sessionId ?? '');
  if (!held) throw new Response('There is no such session in this trial.', { status: 404 });
  return { trialId: state.plan.id, session: held.session };
}

/** Score sheets on paper, one page a taster; what is written on them is typed in later. */
export default function ScoreSheets() {
  const { trialId, session } = useLoaderData<typeof clientLoader>();
  const scored = asksScores(session.kind);
  return (
    <main className="labels-page" id="room">
      <div className="no-print">
        <RoomHead
          title="Score sheets"
          actions={
            <span className="inline-row">
              <Button component={Link} to={`/trial/${trialId}/panel`} color="secondary">
                Back to the panel
              </Button>
              <Button variant="contained" onClick={() => window.print()}>
                Print {session.tasters.length === 1 ? 'the sheet' : `${session.tasters.length} sheets`}
              </Button>
            </span>
          }
        >
          Codes alone. What is written on them is typed in later on the taster’s page.
        </RoomHead>
      </div>
      {session.tasters.map((t) => (
        <section className="score-sheet" key={t.name} aria-label={t.name}>
          <p className="score-sheet-head">
            <strong>{session.name}</strong>
            <span>{t.name}</span>
          </p>
          <p className="small">
            {scored
              ? 'Cup by cup, in the order of this sheet: fill one circle in each line. A sip of water between two cups.'
              : 'In the order of this sheet, from left to right. A sip of water between two cups.'}
          </p>
          {t.sets.map((set, s) =>
            scored || (session.kind === 'ranking' && session.words.length > 0) ? (
              <div key={s}>
                {set.cups.map((code) => (
                  <div className="score-cup" key={code}>
                    <strong className="taster-small-code">{code}</strong>
                    {scored &&
                      session.attributes.map((a) => (
                        <p key={a.name}>
                          <span className="quiet">{a.name}: </span>
                          {a.steps.map((step) => (
                            <span key={step.value} className="score-step">
                              <i className="score-mark" aria-hidden="true" /> {step.value} {step.text}
                            </span>
                          ))}
                        </p>
                      ))}
                    {session.words.length > 0 && (
                      <p>
                        {session.words.map((w) => (
                          <span key={w} className="score-step">
                            <i className="score-mark square" aria-hidden="true" /> {w}
                          </span>
                        ))}
                      </p>
                    )}
                    <p className="score-line">own words:</p>
                  </div>
                ))}
                {session.kind === 'ranking' && <p className="score-line">{session.asked}: </p>}
              </div>
            ) : (
              <div className="score-cup" key={s}>
                <p>
                  {session.kind === 'triangle'
                    ? 'Two are the same. Circle the odd one.'
                    : session.kind === 'duo-trio'
                      ? `Circle the one that is like ${set.cups[0]}.`
                      : session.asked}
                </p>
                <p className="score-codes">
                  {(session.kind === 'duo-trio' ? set.cups.slice(1) : set.cups).map((c) => (
                    <strong key={c} className="taster-small-code">
                      {c}
                    </strong>
                  ))}
                </p>
              </div>
            ),
          )}
          {session.guess === 'same' && (
            <p className="score-line">Which two are the same? A guess will do: </p>
          )}
          {session.guess === 'which' && <p className="score-line">Which is which? A guess will do: </p>}
        </section>
      ))}
    </main>
  );
}

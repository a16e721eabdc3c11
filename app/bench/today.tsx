import { lateMix, mixesDue } from '~core/mixing/mixesInLog';
import { plural } from '~core/quantity/format';
import Button from '@mui/material/Button';
import { binAction } from './binAction';
import { useBin } from '../form/useBin';
import { Link, useLoaderData } from 'react-router';
import { roundProgress, stageOf } from '~core/schedule/rounds';
import { dayOfDate } from '~core/plan/days';
import { planSummary } from '../rooms/planSummary';
import { benchName } from '../store/bench';
import { deleteTrial, listTrials } from '../store/trials';
import { RoomHead } from '../ui/RoomHead';
import { RowMenu } from '../ui/RowMenu';
import { Tessera } from '../ui/Tessera';
import { relativeDay, shortDate, todayDate } from './clock';
import { dueOn, dueWords } from './due';

export async function clientLoader() {
  const today = todayDate();
  const trials = await listTrials();
  return {
    today,
    trials: trials.map(({ row, state, shown, blind }) => ({
      id: row.id,
      plan: shown.plan,
      stage: stageOf(state, today),
      day: dayOfDate(row.plan.startDate, today),
      summary: planSummary(state, today, blind),
      mix: state.seal ? mixesDue(state, dayOfDate(row.plan.startDate, today)) : { wanted: 0, done: 0 },
      late:
        state.seal && stageOf(state, today) === 'running'
          ? lateMix(state, dayOfDate(row.plan.startDate, today))
          : null,
      due: state.seal
        ? roundProgress(state, today).filter((r) => r.status === 'due' || r.status === 'overdue')
        : [],
    })),
  };
}

export async function clientAction({ request }: { request: Request }) {
  return binAction(request, deleteTrial);
}

export default function Today() {
  const { today, trials } = useLoaderData<typeof clientLoader>();
  const remove = useBin();
  const due = dueOn(trials);
  if (trials.length === 0) return <EmptyBench />;
  return (
    <>
      <RoomHead
        title="Today"
        actions={
          <Button variant="contained" component={Link} to="/trials/new">
            Plan a trial
          </Button>
        }
      >
        {shortDate(today)} · {dueWords(due)}
      </RoomHead>
      {due.length > 0 && (
        <section aria-labelledby="due" style={{ marginBottom: '2rem' }}>
          <h2 id="due">Due</h2>
          <table className="ledger as-rows">
            <tbody>
              {due.map((d) => (
                <tr key={d.to} className="first">
                  <td style={{ minWidth: '38%' }}>
                    <strong>{d.what}</strong>
                    <div className="small quiet">{d.question}</div>
                  </td>
                  <td>
                    <span
                      style={{
                        color: d.since ? 'var(--porphyry)' : 'var(--terracotta)',
                        fontWeight: 600,
                      }}
                    >
                      {d.since ? `was due ${relativeDay(d.since, today)}` : 'due today'}
                    </span>
                  </td>
                  <td className="n">
                    {d.figure} <span className="unit">{d.of}</span>
                  </td>
                  <td className="n">
                    <Button variant="outlined" component={Link} to={d.to}>
                      {d.act}
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      )}
      <section aria-labelledby="trials">
        <h2 id="trials">Trials</h2>
        <table className="ledger as-rows">
          <thead>
            <tr>
              <th>question</th>
              <th>contenders</th>
              <th>stage</th>
              <th>started</th>
              <th>
                <span className="quiet">next</span>
              </th>
              <th aria-label="more" />
            </tr>
          </thead>
          <tbody>
            {trials.map((t) => (
              <tr key={t.id}>
                <td>
                  <Link className="open" to={`/trial/${t.id}`}>
                    {t.plan.question}
                  </Link>
                  <div className="small quiet">
                    {[
                      t.plan.crop,
                      t.plan.units.length ? `${t.plan.units.length} ${plural(t.plan.unitNoun)}` : '',
                    ]
                      .filter(Boolean)
                      .join(' · ')}
                  </div>
                </td>
                <td data-label="contenders">
                  <span
                    style={{ display: 'inline-flex', gap: 4 }}
                    title={t.plan.treatments.map((x) => x.name).join(', ')}
                  >
                    {t.plan.treatments.map((x, i) => (
                      <Tessera key={x.id} index={i} size={18} />
                    ))}
                  </span>
                </td>
                <td data-label="stage" style={{ whiteSpace: 'nowrap' }}>
                  {t.stage === 'running'
                    ? `day ${t.day}`
                    : t.stage === 'planning'
                      ? 'being planned'
                      : 'finished'}
                </td>
                <td data-label="started" style={{ whiteSpace: 'nowrap' }}>
                  {shortDate(t.plan.startDate)}
                </td>
                <td data-label="next" className="small">
                  {t.summary}
                </td>
                <td className="n">
                  <RowMenu
                    label={`More for ${t.plan.question}`}
                    acts={[{ text: 'Delete', act: () => remove(t.id, `“${t.plan.question}”`) }]}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </section>
    </>
  );
}

function EmptyBench() {
  return (
    <div className="empty">
      <h1>An empty bench</h1>
      <p style={{ marginTop: '0.6rem' }}>
        A trial starts with one question: does this product do better than that one, or than plain water?
        Palazzo then keeps the plan, the layout, the measuring, the arithmetic and the judgement together, on
        this device.
      </p>
      <p>
        For example: “Does a dearer feed earn its price on coriander?”, with water, two feeds and the one you
        always use, five trays of each, cut weight at day 21.
      </p>
      <div className="inline-row">
        <Button variant="contained" component={Link} to="/trials/new">
          Plan a trial
        </Button>
        <Button component={Link} to="/library">
          Put products in the library first
        </Button>
      </div>
      {benchName() === 'own' && (
        <p style={{ marginTop: '1.2rem' }} className="small">
          The Demo bench, at the top right, shows finished and running trials with made-up products.
        </p>
      )}
    </div>
  );
}

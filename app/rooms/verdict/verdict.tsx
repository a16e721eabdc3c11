import { Link, useLoaderData, useSearchParams } from 'react-router';
import { costTable, verdictTable } from '~core/report/verdictBlocks';
import { awardBlocks } from '~core/report/judgementBlocks';
import { awards } from '~core/verdict/awards';
import { audit } from '~core/fairness/audit';
import { makeVerdict } from '~core/verdict/verdict';
import { perOf } from '~core/plan/divisor';
import { Report, ReportTable } from '../../ui/Report';
import { allFindings, describeFindingError, nameIn } from '../findings/findingData';
import { guarded } from '../../form/guarded';
import { ViewSwitch } from '../../ui/ViewSwitch';
import { ClaimsView } from './ClaimsView';
import { ScorecardView } from './ScorecardView';
import { verdictAction } from './verdictActions';
import './verdict.css';
import { plainAuditInput } from '../auditOf';
import { CodesClosed } from '../CodesClosed';
import type { RoomArgs } from '../roomArgs';

export async function clientLoader({ params }: RoomArgs) {
  const { plan, primary, problem, blind, state, trial, findings, review } = await allFindings(params.trialId);
  return {
    plan,
    findings,
    headings: review.headings ?? [],
    claims: review.claims ?? [],
    primary,
    problem,
    blind,
    verdict:
      primary && makeVerdict(plan, primary, nameIn(plan), { state, audit: audit(plainAuditInput(trial)) }),
  };
}

export const clientAction = guarded(verdictAction);

const views = [
  ['verdict', 'Verdict'],
  ['card', 'Scorecard'],
  ['claims', 'Claims'],
] as const;

export default function VerdictRoom() {
  const data = useLoaderData<typeof clientLoader>();
  const { plan, primary, problem, verdict, blind } = data;
  const [search, setSearch] = useSearchParams();
  const view = views.find(([v]) => v === search.get('view'))?.[0] ?? 'verdict';
  if (blind) return <CodesClosed trialId={plan.id} title="Verdict" />;
  if (!primary || !verdict) {
    return (
      <div className="empty">
        <h1>Verdict</h1>
        <p style={{ marginTop: '0.6rem' }}>
          Who came where, what each gram cost, and what this trial can’t tell.{' '}
          {problem ? describeFindingError(problem, plan) : 'Choose the deciding trait in Question first.'}
        </p>
        <Link to={`/trial/${plan.id}/${problem ? 'rounds' : 'question'}`}>
          {problem ? 'Go to Rounds' : 'Open Question'}
        </Link>
      </div>
    );
  }
  const costs = costTable(verdict);
  return (
    <>
      <div className="room-head">
        <h1>{verdict.headline}</h1>
        <p>
          Decided by {primary.trait.name.toLowerCase()} per {perOf(primary.trait, plan.unitNoun)}. A place is
          shared where nothing separates the contenders.
        </p>
      </div>
      <ViewSwitch
        views={views}
        view={view}
        label="What of it"
        onView={(to) => setSearch(to === 'verdict' ? {} : { view: to })}
      />
      {view === 'card' && (
        <ScorecardView plan={plan} findings={data.findings} verdict={verdict} stored={data.headings} />
      )}
      {view === 'claims' && <ClaimsView plan={plan} findings={data.findings} stored={data.claims} />}
      {view === 'verdict' && (
        <>
          <ReportTable table={verdictTable(verdict, primary, plan, nameIn(plan))} />
          <div className="findings-grid" style={{ marginTop: '1.8rem' }}>
            <section>
              <Report blocks={awardBlocks(awards(plan, primary, verdict, nameIn(plan)))} />
              <h2>What this trial can’t tell</h2>
              <Report blocks={[{ type: 'list', items: verdict.cannotTell }]} />
            </section>
            <section className="stack">
              <div className="note good">
                <h3>Best value</h3>
                <p>{verdict.bestValue.text}</p>
              </div>
              {costs && <ReportTable table={costs} />}
              {verdict.costBasis && <p className="small quiet">{verdict.costBasis}</p>}
            </section>
          </div>
        </>
      )}
    </>
  );
}

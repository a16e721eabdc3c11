import { type ReactNode, useMemo } from 'react';
import { judgeClaims } from '~core/verdict/claims';
import { sayClaims, sayHeadings, sayRetest, sayWhoTakes } from '~core/say/onePage';
import Button from '@mui/material/Button';
import { Link, useLoaderData, useSearchParams, useSubmit } from 'react-router';
import { findingInput } from '~core/account/findingInput';
import { panelFigures } from '~core/sensory/panelFigures';
import { nextTrial } from '~core/looks/secondLooks';
import { listPlans } from '../../store/trials';
import { costTable, verdictTable } from '~core/report/verdictBlocks';
import { awardBlocks } from '~core/report/judgementBlocks';
import { awards } from '~core/say/awards';
import { audit } from '~core/fairness/audit';
import { type Verdict, makeVerdict } from '~core/verdict/verdict';
import { perOf } from '~core/plan/divisor';
import { Report, ReportTable } from '../../ui/Report';
import { allFindings, describeFindingError, nameIn } from '../findings/findingData';
import { ViewSwitch } from '../../ui/ViewSwitch';
import { noCosts } from '~core/model/judgement';
import { CostView } from './CostView';
import { ClaimsView } from './ClaimsView';
import { ScorecardView } from './ScorecardView';
import { verdictAction } from './verdictActions';
import './verdict.css';
import { plainAuditInput } from '../auditOf';
import { CodesClosed } from '../CodesClosed';
import type { RoomArgs } from '../roomArgs';

export async function clientLoader({ params }: RoomArgs) {
  const { plan, primary, problem, blind, state, trial, findings, dated, review } = await allFindings(
    params.trialId,
  );
  const linked = await listPlans();
  const found = audit(plainAuditInput(trial));
  return {
    next: primary && nextTrial(findingInput(state, primary.trait), primary),
    before: linked.find((p) => p.id === plan.retestOf) ?? null,
    after: linked.filter((p) => p.retestOf === plan.id),
    plan,
    rev: trial.rev,
    findings,
    dated,
    headings: review.headings ?? [],
    panels: panelFigures(state),
    claims: review.claims ?? [],
    costs: review.costs ?? noCosts,
    state,
    primary,
    problem,
    blind,
    found,
    verdict: primary && makeVerdict(plan, primary, nameIn(plan), { state, audit: found }),
  };
}

export const clientAction = verdictAction;

const views = [
  ['verdict', 'Verdict'],
  ['card', 'Scorecard'],
  ['cost', 'Cost'],
  ['claims', 'Claims'],
] as const;

/** A part of the one page; what it is left out for where there is nothing to say. */
function Lines({ title, items, none }: { title: string; items: readonly string[]; none?: ReactNode }) {
  if (items.length === 0 && !none) return null;
  return (
    <>
      <h2>{title}</h2>
      {items.length === 0 ? <p>{none}</p> : <Report blocks={[{ type: 'list', items: [...items] }]} />}
    </>
  );
}

type Data = Awaited<ReturnType<typeof clientLoader>>;

/** Headings with their winners, who should take what, and the claims: all that the other views find, on one page. */
function OnePage({ data, verdict }: { data: Data; verdict: Verdict }) {
  const said = useMemo(() => {
    const { plan, findings, panels } = data;
    const nameOf = nameIn(plan);
    const card = { plan, findings, lines: verdict.lines, nameOf, panels };
    return {
      headings: sayHeadings(card, data.headings),
      takes: sayWhoTakes(card, data.headings),
      claims: sayClaims(judgeClaims(plan, data.claims, findings, nameOf, data.dated)),
    };
  }, [data, verdict]);
  return (
    <>
      <Lines
        title="Heading by heading"
        items={said.headings}
        none={<Link to="?view=card">No scorecard yet: begin one.</Link>}
      />
      <Lines title="Who should take what" items={said.takes} />
      <Lines title="What the labels claim" items={said.claims} />
    </>
  );
}

export default function VerdictRoom() {
  const data = useLoaderData<typeof clientLoader>();
  const { plan, primary, problem, verdict, blind } = data;
  const [search, setSearch] = useSearchParams();
  const submit = useSubmit();
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
  const costs = costTable(verdict, plan);
  // The best value stands by itself beside.
  const given = awardBlocks(awards(plan, primary, verdict, nameIn(plan)).filter((a) => a.id !== 'bestValue'));
  const { next } = data;
  return (
    <>
      <div className="room-head">
        <h1>{verdict.headline.text}</h1>
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
        <ScorecardView
          {...{ plan, verdict, primary }}
          findings={data.findings}
          stored={data.headings}
          rev={data.rev}
          panels={data.panels}
        />
      )}
      {view === 'cost' && (
        <CostView
          plan={plan}
          state={data.state}
          finding={primary}
          verdict={verdict}
          stored={data.costs}
          rev={data.rev}
        />
      )}
      {view === 'claims' && (
        <ClaimsView
          plan={plan}
          findings={data.findings}
          dated={data.dated}
          stored={data.claims}
          rev={data.rev}
        />
      )}
      {view === 'verdict' && (
        <>
          <ReportTable table={verdictTable(verdict, primary, plan, nameIn(plan))} />
          <div className="findings-grid" style={{ marginTop: '1.8rem' }}>
            <section>
              <Report blocks={given} />
              <OnePage data={data} verdict={verdict} />
              <h2>What this trial can’t tell</h2>
              <Report blocks={[{ type: 'list', items: verdict.cannotTell.map((c) => c.text) }]} />
            </section>
            <section className="stack">
              <div className="note good">
                <h3>Best value</h3>
                <p>{verdict.bestValue.text}</p>
              </div>
              {costs && <ReportTable table={costs} />}
              {verdict.costBasis && <p className="small quiet">{verdict.costBasis.text}</p>}
              <div className="note plain">
                <h3>A retest</h3>
                <p>
                  {sayRetest(plan, verdict, next, data.found).join(' ')} The plan is taken over; this trial
                  stays as it is.
                </p>
                <Button
                  variant="outlined"
                  color="secondary"
                  onClick={() =>
                    void submit(
                      {
                        intent: 'retest',
                        cvPercent: next?.cvPercent ?? null,
                        replicates: next?.units ?? null,
                      },
                      { method: 'post', encType: 'application/json' },
                    )
                  }
                >
                  Plan a retest
                </Button>
                {data.before && (
                  <p className="small">
                    This is a retest of{' '}
                    <Link to={`/trial/${data.before.id}/verdict`}>{data.before.question}</Link>
                  </p>
                )}
                {data.after.map((t) => (
                  <p key={t.id} className="small">
                    Repeated in <Link to={`/trial/${t.id}/verdict`}>{t.question}</Link> ({t.code})
                  </p>
                ))}
              </div>
            </section>
          </div>
        </>
      )}
    </>
  );
}

import { useMemo } from 'react';
import { judgeClaims } from '~core/verdict/claims';
import { type Takes, sayValue, whoTakes } from '~core/say/answer';
import { costsOf } from '~core/say/costWords';
import type { Finding } from '~core/account/finding';
import type { Plan } from '~core/model/plan';
import { planIndex } from '~core/plan/planIndex';
import { makeCard } from '~core/scorecard/card';
import { TesseraName } from '../../ui/Tessera';
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
  const auditFindings = audit(plainAuditInput(trial));
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
    found: auditFindings,
    verdict: primary && makeVerdict(plan, primary, nameIn(plan), { state, audit: auditFindings }),
  };
}

export const clientAction = verdictAction;

const views = [
  ['verdict', 'Verdict'],
  ['card', 'Scorecard'],
  ['cost', 'Cost'],
  ['claims', 'Claims'],
] as const;

/** A part of the one page, folded until somebody wants it; left out where there is nothing to say. */
function Lines({ title, items, open = false }: { title: string; items: readonly string[]; open?: boolean }) {
  if (items.length === 0) return null;
  return (
    <details className="folded" open={open}>
      <summary>{title}</summary>
      <Report blocks={[{ type: 'list', items: [...items] }]} />
    </details>
  );
}

type Data = Awaited<ReturnType<typeof clientLoader>>;

/** Who takes the trait, the money and the weights: a block each, with the tiles of those that do. */
function Answer({ plan, takes }: { plan: Plan; takes: readonly Takes[] }) {
  const of = planIndex(plan);
  return (
    <div className="takes">
      {takes.map((t) => (
        <section key={t.id} aria-label={t.title}>
          <p className="small quiet">{t.title}</p>
          <h2>
            {t.who.length === 0
              ? 'Nobody'
              : t.who.map((id) => (
                  <TesseraName
                    key={id}
                    index={of.treatmentOrder(id)}
                    name={of.treatment(id)?.name ?? id}
                    size={26}
                  />
                ))}
          </h2>
          <p>{t.text}</p>
        </section>
      ))}
      {takes.every((t) => t.id !== 'weights') && (
        <section aria-label="By your weights">
          <p className="small quiet">Takes it by your weights</p>
          <p>
            <Link to="?view=card">No scorecard yet: begin one.</Link>
          </p>
        </section>
      )}
    </div>
  );
}

/** All that the verdict's page says, from the owners of each fact. */
function useSaid(data: Data, verdict: Verdict, finding: Finding) {
  return useMemo(() => {
    const { plan, findings, panels, headings, costs, state } = data;
    const nameOf = nameIn(plan);
    const card = { plan, findings, lines: verdict.lines, nameOf, panels };
    const input = { plan, verdict, finding, settings: costs, costs: costsOf(state, verdict, costs) };
    return {
      value: sayValue(input, nameOf),
      takes: whoTakes(input, headings.length > 0 ? makeCard({ ...card, headings }) : null, nameOf),
      headings: sayHeadings(card, headings),
      alone: sayWhoTakes(card, headings),
      claims: sayClaims(judgeClaims(plan, data.claims, findings, nameOf, data.dated)),
    };
  }, [data, verdict, finding]);
}

/** The verdict: one answer in three looks, the table, and the rest folded. */
function VerdictPage({ data, verdict, finding }: { data: Data; verdict: Verdict; finding: Finding }) {
  const { plan, next } = data;
  const submit = useSubmit();
  const sentences = useSaid(data, verdict, finding);
  const costs = costTable(verdict, plan);
  // The best value stands by itself above.
  const given = awardBlocks(awards(plan, finding, verdict, nameIn(plan)).filter((a) => a.id !== 'bestValue'));
  return (
    <>
      {sentences.value && <p className="answer">{sentences.value}</p>}
      <Answer plan={plan} takes={sentences.takes} />
      <ReportTable table={verdictTable(verdict, finding, plan, nameIn(plan))} />
      <div className="findings-grid" style={{ marginTop: '1.4rem' }}>
        <section>
          <Lines title="What this trial can’t tell" items={verdict.cannotTell.map((c) => c.text)} open />
          <Lines title="Heading by heading" items={sentences.headings} />
          <Lines title="Who should take what" items={sentences.alone} />
          <Lines title="What the labels claim" items={sentences.claims} />
          {given.length > 0 && (
            <details className="folded">
              <summary>Awards</summary>
              <Report blocks={given} />
            </details>
          )}
          {costs && (
            <details className="folded">
              <summary>Where the prices come from</summary>
              <ReportTable table={costs} />
              {verdict.costBasis && <p className="small quiet">{verdict.costBasis.text}</p>}
            </details>
          )}
        </section>
        <section className="note plain">
          <h3>A retest</h3>
          <p>
            {sayRetest(plan, verdict, next, data.found).join(' ')} The plan is taken over; this trial stays as
            it is.
          </p>
          <Button
            variant="outlined"
            color="secondary"
            onClick={() =>
              void submit(
                { intent: 'retest', cvPercent: next?.cvPercent ?? null, replicates: next?.units ?? null },
                { method: 'post', encType: 'application/json' },
              )
            }
          >
            Plan a retest
          </Button>
          {data.before && (
            <p className="small">
              This is a retest of <Link to={`/trial/${data.before.id}/verdict`}>{data.before.question}</Link>
            </p>
          )}
          {data.after.map((t) => (
            <p key={t.id} className="small">
              Repeated in <Link to={`/trial/${t.id}/verdict`}>{t.question}</Link> ({t.code})
            </p>
          ))}
        </section>
      </div>
    </>
  );
}

export default function VerdictRoom() {
  const data = useLoaderData<typeof clientLoader>();
  const { plan, primary, problem, verdict, blind } = data;
  const [search, setSearch] = useSearchParams();
  const view = views.find(([v]) => v === search.get('view'))?.[0] ?? 'verdict';
  if (blind) return <CodesClosed trialId={plan.id} state={data.state} title="Verdict" />;
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
      {view === 'verdict' && <VerdictPage data={data} verdict={verdict} finding={primary} />}
    </>
  );
}

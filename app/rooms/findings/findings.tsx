import { aheadOfAll } from '~core/account/outcomes';
import { experimentalNoun } from '~core/plan/sharing';
import { countOf } from '~core/quantity/format';
import { useMemo, useState } from 'react';
import { Link, useLoaderData, useSearchParams } from 'react-router';
import { againstControlTable, byCodeTable } from '~core/report/findingBlocks';
import { perOf } from '~core/plan/divisor';
import { blindHeadline, headline, isSoFar, methodText, notes, warningsOf } from '~core/say/words';
import type { RoomArgs } from '../roomArgs';
import { Report, ReportTable } from '../../ui/Report';
import { ViewSwitch } from '../../ui/ViewSwitch';
import { Chooser } from './Chooser';
import { FactorsView } from './FactorsView';
import { FindingPicture } from './FindingPicture';
import { ForestView } from './ForestView';
import { FromWhat } from './FromWhat';
import { LooksView } from './LooksView';
import { OverTimeView } from './OverTimeView';
import { TraitList } from './TraitList';
import { WordsTable } from './WordsTable';
import { describeFindingError, lanesOf, nameIn, oneFinding } from './findingData';
import { type View, views } from './views';
import './findings.css';

export async function clientLoader({ params, request }: RoomArgs) {
  const search = new URL(request.url).searchParams;
  return oneFinding(params.trialId, {
    traitId: search.get('trait'),
    roundId: search.get('round'),
    withExcluded: search.get('excluded') === 'in',
    withLosses: search.get('losses') === 'in',
    crop: search.get('crop') === null ? null : Number(search.get('crop')),
    withBorderline: search.get('borderline') === 'in',
    withoutOffTypes: search.get('offtypes') === 'out',
    method: search.get('method'),
    as: search.get('as'),
  });
}

export default function FindingsRoom() {
  const data = useLoaderData<typeof clientLoader>();
  const { plan, trait, result, blind, hasExclusions, hasBorderline, sealed, words } = data;
  const [search, setSearch] = useSearchParams();
  const [open, setOpen] = useState(false);
  const lanes = useMemo(() => lanesOf(plan), [plan]);
  if (!trait || !result) {
    return (
      <div className="empty">
        <h1>Findings</h1>
        <p style={{ marginTop: '0.6rem' }}>
          Which products differ from the control, and from each other. Add a trait in Question first.
        </p>
        <Link to={`/trial/${plan.id}/question`}>Open Question</Link>
      </div>
    );
  }
  const set = (key: string, value: string) => {
    const next = new URLSearchParams(search);
    if (value) next.set(key, value);
    else next.delete(key);
    if (key === 'trait') for (const other of ['round', 'method', 'as']) next.delete(other);
    setSearch(next);
  };
  const { hasOffTypes } = data;
  const chooser = <Chooser {...{ plan, trait, search, set, hasExclusions, hasBorderline, hasOffTypes }} />;
  if (!result.ok) {
    return (
      <>
        <h1>Findings</h1>
        <p className="quiet" style={{ margin: '0.4rem 0 1rem' }}>
          {describeFindingError(result.error, plan)}
        </p>
        {chooser}
        {words.length > 0 && <WordsTable words={words} plan={plan} />}
        {plan.traits.length > 1 && (
          <TraitList plan={plan} findings={data.others} current={trait.id} blind={blind} />
        )}
      </>
    );
  }
  const finding = result.value;
  const nameOf = nameIn(plan);
  const title = blind ? blindHeadline(finding) : headline(finding, nameOf).text;
  const warnings = warningsOf(finding, plan.unitNoun);
  const isPrimary = trait.id === plan.primaryTraitId;
  const unmarked = blind || finding.peers;
  // While codes are closed nothing may tell which of them is the control.
  const openViews = views.filter(
    ([id]) =>
      id === 'picture' ||
      (id === 'time' && data.time !== null) ||
      (!blind &&
        ((id === 'factors' && data.factorials.length > 0) ||
          (id === 'looks' && data.looks !== null) ||
          (id === 'traits' && data.others.length > 1 && !finding.peers))),
  );
  const view = (openViews.find(([id]) => id === search.get('view'))?.[0] ?? 'picture') as View;
  return (
    <>
      <div className="room-head">
        <h1>{title}</h1>
        <p>
          {trait.name} per {perOf(finding.trait, plan.unitNoun)}
          {finding.roundName && `, ${finding.roundName.toLowerCase()}`}
          {finding.crop && `, ${finding.crop} alone`} ·{' '}
          {countOf(finding.units.length, experimentalNoun(plan))}
          {isSoFar(finding) && ', so far'} ·{' '}
          {isPrimary
            ? sealed
              ? 'deciding trait, chosen before the start'
              : 'deciding trait'
            : 'looked at beside the deciding trait: exploratory'}
        </p>
      </div>
      {openViews.length > 1 && (
        <ViewSwitch
          views={openViews}
          view={view}
          label="What of it"
          onView={(to) => set('view', to === 'picture' ? '' : to)}
        />
      )}
      {view === 'time' && (
        <OverTimeView plan={plan} trait={trait} time={data.time} told={aheadOfAll(finding)} blind={blind} />
      )}
      {view === 'factors' && <FactorsView plan={plan} trait={finding.trait} factorials={data.factorials} />}
      {view === 'looks' && data.looks && (
        <LooksView plan={plan} finding={finding} looks={data.looks} said={(id) => data.happened[id] ?? []} />
      )}
      {view === 'traits' && <ForestView plan={plan} findings={data.others} />}
      {view === 'picture' && (
        <div className="findings-grid">
          <div>
            <FindingPicture {...{ plan, finding, lanes, unmarked, title }} />
            <div style={{ margin: '1rem 0' }}>{chooser}</div>
            {plan.traits.length > 1 && (
              <TraitList plan={plan} findings={data.others} current={trait.id} blind={blind} />
            )}
          </div>
          <div className="stack">
            <h2 className="sr-only">In figures and words</h2>
            <ReportTable
              table={
                unmarked ? byCodeTable(finding, plan, nameOf) : againstControlTable(finding, plan, nameOf)
              }
            />
            {blind ? (
              <p className="small">
                Which code is which product, and which the control, is shown when the codes are opened in{' '}
                <Link to={`/trial/${plan.id}/layout`}>Layout</Link>.
              </p>
            ) : (
              <Report
                blocks={notes(finding, nameOf, experimentalNoun(plan)).map(({ tone, title, text }) => ({
                  type: 'note',
                  ...{ tone, title, text },
                }))}
              />
            )}
            {data.ladders.map((said) => (
              <div key={said} className="note plain">
                <h3>Dose by dose</h3>
                <p>{said}</p>
              </div>
            ))}
            {warnings.length > 0 && <Report blocks={[{ type: 'list', tone: 'warning', items: warnings }]} />}
            <p className="small quiet">
              {methodText(finding, experimentalNoun(plan))}{' '}
              {!blind && (
                <button type="button" className="link" onClick={() => setOpen(true)}>
                  How this was worked out
                </button>
              )}
            </p>
          </div>
        </div>
      )}
      {open && <FromWhat plan={plan} finding={finding} r={data.r} onClose={() => setOpen(false)} />}
    </>
  );
}

import { plural } from '~core/quantity/format';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useMemo, useState } from 'react';
import { Link, useLoaderData, useSearchParams } from 'react-router';
import { methodsFor } from '~core/analysis/methods';
import { gradesOf } from '~core/log/picks';
import { type TraitSummary, kindOf } from '~core/model/plan';
import { againstControlTable, byCodeTable, chartCaption } from '~core/report/findingBlocks';
import { perOf } from '~core/plan/divisor';
import { blindHeadline, headline, isSoFar, methodText, notes, warningsOf } from '~core/verdict/words';
import { FindingChart } from '../../ui/FindingChart';
import { bytesOf, download } from '../../ui/download';
import { findingPng } from '../../ui/findingChart';
import type { RoomArgs } from '../roomArgs';
import { Report, ReportTable } from '../../ui/Report';
import { FromWhat } from './FromWhat';
import { WordsTable } from './WordsTable';
import { describeFindingError, lanesOf, nameIn, oneFinding } from './findingData';

export async function clientLoader({ params, request }: RoomArgs) {
  const search = new URL(request.url).searchParams;
  return oneFinding(params.trialId, {
    traitId: search.get('trait'),
    roundId: search.get('round'),
    withExcluded: search.get('excluded') === 'in',
    withLosses: search.get('losses') === 'in',
    crop: search.get('crop') === null ? null : Number(search.get('crop')),
    withBorderline: search.get('borderline') === 'in',
    method: search.get('method'),
  });
}

const allRounds: Record<TraitSummary, string> = {
  last: 'the last round',
  sum: 'all picks together',
  area: 'the mean over time',
  growth: 'growth over time',
};

export default function FindingsRoom() {
  const { plan, trait, result, blind, hasExclusions, hasBorderline, sealed, words } =
    useLoaderData<typeof clientLoader>();
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
    if (key === 'trait') for (const other of ['round', 'method']) next.delete(other);
    setSearch(next);
  };
  const rounds = plan.rounds.filter((r) => r.traitIds.includes(trait.id));
  const ways = methodsFor(trait);
  const chooser = (
    <div className="inline-row no-print">
      <TextField
        select
        label="Trait"
        value={trait.id}
        onChange={(e) => set('trait', e.target.value)}
        sx={{ width: 250 }}
      >
        {plan.traits.map((t) => (
          <MenuItem key={t.id} value={t.id}>
            {t.name}
            {t.id === plan.primaryTraitId && ' (decides)'}
          </MenuItem>
        ))}
      </TextField>
      {rounds.length > 1 && (
        <TextField
          select
          label="Taken at"
          value={search.get('round') ?? 'all'}
          onChange={(e) => set('round', e.target.value === 'all' ? '' : e.target.value)}
          sx={{ width: 200 }}
        >
          <MenuItem value="all">{allRounds[trait.summary]}</MenuItem>
          {rounds.map((r) => (
            <MenuItem key={r.id} value={r.id}>
              {r.name}, day {r.day}
            </MenuItem>
          ))}
        </TextField>
      )}
      {plan.cropsWithin.length > 0 && (
        <TextField
          select
          label="Crop"
          value={search.get('crop') ?? 'all'}
          onChange={(e) => set('crop', e.target.value === 'all' ? '' : e.target.value)}
          sx={{ width: 180 }}
        >
          <MenuItem value="all">all crops</MenuItem>
          {plan.cropsWithin.map((crop, i) => (
            <MenuItem key={crop} value={String(i)}>
              {crop}
            </MenuItem>
          ))}
        </TextField>
      )}
      {hasExclusions && (
        <TextField
          select
          label={`Left-out ${plural(plan.unitNoun)}`}
          value={search.get('excluded') ?? 'out'}
          onChange={(e) => set('excluded', e.target.value === 'in' ? 'in' : '')}
          sx={{ width: 170 }}
        >
          <MenuItem value="out">stay out</MenuItem>
          <MenuItem value="in">taken in</MenuItem>
        </TextField>
      )}
      {kindOf(trait).takenBy === 'picks' && gradesOf(plan).some((g) => g.use === 'loss') && (
        <TextField
          select
          label="Lost to pests"
          value={search.get('losses') ?? 'out'}
          onChange={(e) => set('losses', e.target.value === 'in' ? 'in' : '')}
          sx={{ width: 190 }}
        >
          <MenuItem value="out">isn’t yield</MenuItem>
          <MenuItem value="in">counts as yield</MenuItem>
        </TextField>
      )}
      {hasBorderline && (
        <TextField
          select
          label="Borderline cases"
          value={search.get('borderline') ?? 'out'}
          onChange={(e) => set('borderline', e.target.value === 'in' ? 'in' : '')}
          sx={{ width: 180 }}
        >
          <MenuItem value="out">don’t count</MenuItem>
          <MenuItem value="in">count</MenuItem>
        </TextField>
      )}
      {ways.length > 1 && (
        <TextField
          select
          label="Tested by"
          value={search.get('method') ?? ways[0]!.id}
          onChange={(e) => set('method', e.target.value === ways[0]!.id ? '' : e.target.value)}
          sx={{ width: 220 }}
        >
          {ways.map((m) => (
            <MenuItem key={m.id} value={m.id}>
              {m.name}
            </MenuItem>
          ))}
        </TextField>
      )}
    </div>
  );
  if (!result.ok) {
    return (
      <>
        <h1>Findings</h1>
        <p className="quiet" style={{ margin: '0.4rem 0 1rem' }}>
          {describeFindingError(result.error, plan)}
        </p>
        {chooser}
        {words.length > 0 && <WordsTable words={words} plan={plan} />}
      </>
    );
  }
  const finding = result.value;
  const nameOf = nameIn(plan);
  const title = blind ? blindHeadline(finding) : headline(finding, nameOf);
  const warnings = warningsOf(finding, plan.unitNoun);
  const isPrimary = trait.id === plan.primaryTraitId;
  const shaded =
    trait.direction === 'band'
      ? ` Shaded: the wanted band of ${trait.bandLow}–${trait.bandHigh} ${trait.unit}.`
      : finding.smallestDifference !== null && !blind && !finding.peers
        ? ' Shaded: differences from the control too small to matter.'
        : '';
  const png = async () => {
    const uri = await findingPng({ finding, lanes, unitNoun: plan.unitNoun, blind: blind || finding.peers });
    download(
      new Blob([bytesOf(uri)], { type: 'image/png' }),
      `${plan.code}-${trait.name.toLowerCase().replaceAll(' ', '-')}.png`,
    );
  };
  return (
    <>
      <div className="room-head">
        <h1>{title}</h1>
        <p>
          {trait.name} per {perOf(finding.trait, plan.unitNoun)}
          {finding.roundName && `, ${finding.roundName.toLowerCase()}`}
          {finding.crop && `, ${finding.crop} alone`} · {finding.units.length} {plural(plan.unitNoun)}
          {isSoFar(finding) && ', so far'} ·{' '}
          {isPrimary
            ? sealed
              ? 'deciding trait, chosen before the start'
              : 'deciding trait'
            : 'looked at beside the deciding trait: exploratory'}
        </p>
      </div>
      <div className="findings-grid">
        <div>
          <FindingChart
            finding={finding}
            lanes={lanes}
            blind={blind || finding.peers}
            unitNoun={plan.unitNoun}
            caption={title}
          />
          <p className="small quiet" style={{ margin: '0.6rem 0 1rem' }}>
            {chartCaption(finding, plan.unitNoun)}
            {shaded}
          </p>
          <div className="inline-row" style={{ justifyContent: 'space-between' }}>
            {chooser}
            <Button color="secondary" onClick={() => void png()}>
              Picture (PNG)
            </Button>
          </div>
        </div>
        <div className="stack">
          {blind ? (
            <>
              <ReportTable table={byCodeTable(finding, plan, nameOf)} />
              <p className="small">
                Which code is which product, and which the control, is shown when the codes are opened in{' '}
                <Link to={`/trial/${plan.id}/layout`}>Layout</Link>.
              </p>
            </>
          ) : (
            <ReportTable
              table={
                finding.peers
                  ? byCodeTable(finding, plan, nameOf)
                  : againstControlTable(finding, plan, nameOf)
              }
            />
          )}
          {!blind && (
            <Report blocks={notes(finding, nameOf, plan.unitNoun).map((n) => ({ type: 'note', ...n }))} />
          )}
          {warnings.length > 0 && <Report blocks={[{ type: 'list', tone: 'warning', items: warnings }]} />}
          <p className="small quiet">
            {methodText(finding, plan.unitNoun)}{' '}
            {!blind && (
              <button type="button" className="link" onClick={() => setOpen(true)}>
                How this was worked out
              </button>
            )}
          </p>
        </div>
      </div>
      {open && <FromWhat plan={plan} finding={finding} onClose={() => setOpen(false)} />}
    </>
  );
}

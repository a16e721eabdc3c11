import { sayControl } from '~core/say/sayContrast';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useMemo } from 'react';
import type { TrialState } from '~core/log/state';
import type { CostLine, CostSettings, LimitFor } from '~core/model/judgement';
import { newId } from '~core/model/newId';
import type { Plan } from '~core/model/plan';
import { fullCostTable } from '~core/report/judgementBlocks';
import { packCaption, kitLines, packTable, pricesPaid } from '~core/report/packTable';
import { tasksLogged } from '~core/cost/workLogged';
import { resultUnit } from '~core/plan/divisor';
import { formatFigure, listNames, plural } from '~core/quantity/format';
import { workDone } from '~core/schedule/workDone';
import { sayPerPiece } from '~core/say/costPerPiece';
import { sayValue } from '~core/say/answer';
import { costsOf, sayCosts } from '~core/say/costWords';
import type { Finding } from '~core/account/finding';
import { bestValueElsewhere, sayElsewhere } from '~core/verdict/priceSets';
import type { Verdict } from '~core/verdict/verdict';
import { PickOne } from '../../ui/PickOne';
import { ReportTable } from '../../ui/Report';
import { KeptText } from '../../form/KeptText';
import { NotKept } from '../../form/NotKept';
import { useKept } from '../../form/useKept';
import { nameIn } from '../findings/findingData';
import { MoneyField } from './MoneyField';
import { PriceSets } from './PriceSets';

interface Props {
  plan: Plan;
  state: TrialState;
  finding: Finding;
  verdict: Verdict;
  stored: CostSettings;
  /** of the trial it is read from */
  rev: number;
}

function PacksSection({ plan, nameOf }: { plan: Plan; nameOf: (id: string) => string }) {
  const table = packTable(plan, nameOf);
  const kits = [...kitLines(plan, nameOf), ...pricesPaid(plan)];
  if (!table) return null;
  return (
    <section style={{ marginTop: '1.4rem' }}>
      <h2>How far a pack goes</h2>
      <ReportTable table={table} />
      {kits.length > 0 && (
        <ul className="report-list">
          {kits.map((k) => (
            <li key={k}>{k}</li>
          ))}
        </ul>
      )}
      <p className="small quiet">{packCaption(plan)}</p>
    </section>
  );
}

/** All that a result took: products, and whatever else is counted; outlay against running cost, a limit, what would turn it. */
export function CostView({ plan, state, finding, verdict, stored, rev }: Props) {
  const { shown, keep, refused } = useKept('costs', stored, rev);
  const nameOf = useMemo(() => nameIn(plan), [plan]);
  const costs = useMemo(() => costsOf(state, verdict, shown), [state, verdict, shown]);
  const set = (over: Partial<CostSettings>) => keep({ ...shown, ...over });
  const setLine = (id: string, over: Partial<CostLine>) =>
    set({ lines: shown.lines.map((l) => (l.id === id ? { ...l, ...over } : l)) });
  const elsewhere = useMemo(
    () => sayElsewhere(bestValueElsewhere(state, finding, verdict, shown.priceSets ?? [], nameOf)),
    [state, finding, verdict, shown, nameOf],
  );
  const sentences = [
    ...sayCosts(costs, shown, verdict, finding, nameOf, plan),
    ...sayPerPiece(state, costs, nameOf),
    ...elsewhere,
  ];
  const { currency } = plan;
  const work = useMemo(() => workDone(state), [state]);
  const logged = useMemo(() => tasksLogged(state), [state]);
  const unit = resultUnit(finding.trait) || 'step';
  const limits: [LimitFor, string][] = [
    ['unit', `a ${plan.unitNoun}`],
    ['result', `each ${unit}`],
    ['extra', `each ${unit} more than ${sayControl(finding, nameOf)}`],
  ];
  const minutes = Math.round(work.reduce((s, w) => s + w.minutes, 0) / Math.max(1, plan.units.length));
  return (
    <>
      <h2 aria-live="polite">
        {sayValue({ plan, verdict, finding, settings: shown, costs }, nameOf) ?? verdict.bestValue.text}
      </h2>
      <ReportTable table={fullCostTable(costs, verdict, finding, plan, nameOf)} />
      {sentences.length > 0 && (
        <ul className="report-list">
          {sentences.map((s) => (
            <li key={s}>{s}</li>
          ))}
        </ul>
      )}
      <PacksSection plan={plan} nameOf={nameOf} />
      <section className="stack no-print" style={{ marginTop: '1.4rem' }}>
        <h2>What is counted</h2>
        <p className="small quiet">
          {verdict.costBasis?.text} A field left empty isn’t counted, and the review says which were.
        </p>
        <div className="inline-row">
          <MoneyField
            label="Water, a litre"
            value={shown.waterMinorPerL}
            currency={currency}
            onKeep={(v) => set({ waterMinorPerL: v })}
          />
          <MoneyField
            label="Electricity, a kWh"
            value={shown.kWhMinor}
            currency={currency}
            width={170}
            onKeep={(v) => set({ kWhMinor: v })}
          />
          <MoneyField
            label={`Work on a ${plan.unitNoun}`}
            value={shown.workAsLogged ? null : shown.minutesPerUnit}
            suffix={shown.workAsLogged ? 'as logged' : 'min'}
            width={170}
            onKeep={(v) => set({ minutesPerUnit: v, workAsLogged: false })}
          />
          <MoneyField
            label="An hour of it"
            value={shown.hourMinor}
            currency={currency}
            onKeep={(v) => set({ hourMinor: v })}
          />
        </div>
        <div className="inline-row">
          <MoneyField
            label="Limit, set beforehand"
            value={shown.limitMinor}
            currency={currency}
            width={190}
            onKeep={(v) => set({ limitMinor: v })}
          />
          <PickOne
            label="Limit for"
            sx={{ width: 230 }}
            value={shown.limitFor ?? 'unit'}
            options={limits}
            onPick={(limitFor) => set({ limitFor })}
          />
        </div>
        {logged.length > 0 && (
          <p className="small">
            Logged:{' '}
            {listNames(
              logged.map(
                (t) => `${t.task} ${formatFigure(t.minutes, Number.isInteger(t.minutes) ? 0 : 1)} min`,
              ),
            )}
            .{' '}
            {shown.workAsLogged ? (
              'These minutes are counted, for the units they were logged for.'
            ) : (
              <Button size="small" color="secondary" onClick={() => set({ workAsLogged: true })}>
                Count the logged minutes
              </Button>
            )}
          </p>
        )}
        {logged.length === 0 && minutes > 0 && minutes !== shown.minutesPerUnit && (
          <p className="small">
            The log shows about {minutes} min of work on a {plan.unitNoun} (
            {listNames(work.map((w) => `${w.name} ${Math.round(w.minutes)} min in all`))}), as these tasks are
            planned.{' '}
            <Button size="small" color="secondary" onClick={() => set({ minutesPerUnit: minutes })}>
              Take {minutes} min
            </Button>
          </p>
        )}
        {shown.lines.map((l) => (
          <div key={l.id} className="inline-row">
            <KeptText
              sx={{ width: 180 }}
              empty="Name what it is."
              label="What it is"
              value={l.name}
              onKeep={(name) => setLine(l.id, { name })}
            />
            <MoneyField
              label={`Price of ${l.name}`}
              value={l.minor}
              currency={currency}
              width={170}
              onKeep={(v) => setLine(l.id, { minor: Math.round(v ?? 0) })}
            />
            <MoneyField
              label={`Shared by ${plural(plan.unitNoun)}`}
              value={l.sharedBy}
              whole
              least={1}
              width={140}
              onKeep={(v) => setLine(l.id, { sharedBy: v ?? 1 })}
            />
            <MoneyField
              label="Lasts seasons"
              value={l.seasons}
              whole
              least={1}
              width={130}
              onKeep={(v) => setLine(l.id, { seasons: v ?? 1 })}
            />
            <TextField
              select
              size="small"
              label="For"
              value={l.treatmentIds[0] ?? ''}
              sx={{ width: 170 }}
              slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
              onChange={(e) => setLine(l.id, { treatmentIds: e.target.value === '' ? [] : [e.target.value] })}
            >
              <MenuItem value="">all</MenuItem>
              {plan.treatments.map((t) => (
                <MenuItem key={t.id} value={t.id}>
                  {t.name}
                </MenuItem>
              ))}
            </TextField>
            <Button
              color="inherit"
              aria-label={`Remove ${l.name}`}
              onClick={() => set({ lines: shown.lines.filter((x) => x.id !== l.id) })}
            >
              Remove
            </Button>
          </div>
        ))}
        <div>
          <Button
            variant="outlined"
            color="secondary"
            onClick={() =>
              set({
                lines: [
                  ...shown.lines,
                  {
                    id: newId<string>(),
                    name: 'Container',
                    minor: 0,
                    sharedBy: 1,
                    seasons: 1,
                    treatmentIds: [],
                  },
                ],
              })
            }
          >
            Count something more
          </Button>
        </div>
      </section>
      <PriceSets plan={plan} sets={shown.priceSets ?? []} onKeep={(priceSets) => set({ priceSets })} />
      <NotKept refused={refused} />
    </>
  );
}

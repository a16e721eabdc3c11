import Button from '@mui/material/Button';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { type ReactNode, useState, useMemo } from 'react';
import { FormProvider } from 'react-hook-form';
import { Link } from 'react-router';
import { exposureSpreadPercent, meanExposure, rotationPlan } from '~core/design/rotation';
import type { Plan, Position, Unit } from '~core/model/plan';
import { formatFigure, plural } from '~core/quantity/format';
import { dateOfDay } from '~core/plan/days';
import { shortDate, todayDate } from '../../ui/clock';
import { Choice, Field, LockedForm } from '../../form/fields';
import { usePost } from '../../form/usePost';
import { useRecordForm } from '../../form/useRecordForm';
import { Legend } from '../../ui/Legend';
import { PlanView } from '../../ui/PlanView';
import { UnitFace, unitNumber, useTileInk } from '../../ui/UnitTile';
import { rotationRecord } from './layoutRecords';
import { UnsavedGuard } from '../../form/UnsavedGuard';
import { StaleNote } from '../../form/StaleNote';
import type { LayoutData } from './layoutData';

/** Who moves where on which day: the plan at every turn, what it does to the light, the printed card. */
export function RotationView({
  id,
  plan,
  positions,
  seal,
  turnsDone,
  head,
}: LayoutData & { head: ReactNode }) {
  const tileInk = useTileInk();
  const post = usePost();
  const turns = rotationPlan(plan);
  const [chosen, setChosen] = useState(0);
  const turn = turns[Math.min(chosen, turns.length - 1)];
  const indexOf = (treatmentId: string) => plan.treatments.findIndex((t) => t.id === treatmentId);
  const still = exposureSpreadPercent(meanExposure({ ...plan, rotation: null }));
  const turning = exposureSpreadPercent(meanExposure(plan));
  const today = todayDate();
  const place = (_: Position, unit: Unit | undefined) =>
    unit ? (
      <span className="tile" style={tileInk(indexOf(unit.treatmentId))}>
        <UnitFace
          index={indexOf(unit.treatmentId)}
          number={unitNumber(unit.code)}
          value={plan.treatments[indexOf(unit.treatmentId)]?.name}
          words
        />
      </span>
    ) : (
      <span className="place" />
    );
  return (
    <div className="with-side">
      <div className="main">
        {head}
        {turn && turns.length > 1 ? (
          <>
            <div className="scroll-x" style={{ marginBottom: '0.7rem' }}>
              <ToggleButtonGroup
                exclusive
                size="small"
                value={turn.number}
                onChange={(_, to: number | null) => to !== null && setChosen(to)}
                aria-label="Turn"
              >
                {turns.map((t) => (
                  <ToggleButton
                    key={t.number}
                    value={t.number}
                    sx={{ textTransform: 'none', py: 0.3, whiteSpace: 'nowrap' }}
                  >
                    {t.number === 0 ? 'start' : `day ${t.day}`}
                  </ToggleButton>
                ))}
              </ToggleButtonGroup>
            </div>
            <PlanView plan={plan} positions={turn.positions} renderPlace={place} />
            <Legend plan={plan} />
            {seal && turn.number > 0 && (
              <div className="inline-row" style={{ marginTop: '0.9rem' }}>
                {turnsDone.includes(`turn ${turn.number}`) ? (
                  <span className="small quiet">This turn is done and in the log.</span>
                ) : (
                  <Button variant="contained" onClick={() => post({ intent: 'turn', number: turn.number })}>
                    {plural(plan.unitNoun)} stand so now: log turn {turn.number}
                  </Button>
                )}
                <span className="small quiet">
                  planned for {shortDate(dateOfDay(plan.startDate, turn.day))}
                  {dateOfDay(plan.startDate, turn.day) === today && ', today'}
                </span>
              </div>
            )}
          </>
        ) : (
          <>
            {plan.units.length > 0 && (
              <>
                <PlanView plan={plan} positions={positions} renderPlace={place} />
                <Legend plan={plan} />
              </>
            )}
            <div className="empty">
              <h2>{plan.units.length === 0 ? 'Nothing stands here yet' : 'Every unit keeps its position'}</h2>
              <p>
                {plan.units.length === 0
                  ? 'Lay the units out under Arrange first.'
                  : plan.rounds.length === 0
                    ? 'Plan the rounds in Question first: the last one ends the rotation.'
                    : 'Fixed positions by chance and a rotation are both good practice. A rotation evens out light that blocks can’t, and costs a few minutes every turn.'}
              </p>
            </div>
          </>
        )}
      </div>
      <aside className="side stack">
        <RotationForm plan={plan} locked={seal !== null} />
        {turns.length > 1 && (
          <>
            <p className="small">
              {turns.length - 1} turns until day {Math.max(...plan.rounds.map((r) => r.day))}.{' '}
              {still !== null && turning !== null
                ? `Mean light would be ${formatFigure(still, 1)} % apart standing still, and is ${formatFigure(turning, 1)} % apart over all turns.`
                : 'With a light map the steps are chosen so that every contender gets the same.'}
            </p>
            <p>
              <Link to={`/trial/${id}/card`}>The card to print</Link>
            </p>
            {plan.design && plan.design.kind !== 'crd' && plan.rotation?.within === 'all' && (
              <p className="small quiet">
                Units leave their blocks: rotate inside blocks, or lay out completely at random.
              </p>
            )}
          </>
        )}
        {positions.size > 0 && seal && (
          <p className="small quiet">Moves that aren’t planned are made under Arrange.</p>
        )}
      </aside>
    </div>
  );
}

function RotationForm({ plan, locked }: { plan: Plan; locked: boolean }) {
  const defaults = useMemo(() => rotationRecord.shown(plan), [plan]);
  const { form, busy, stale, conflicts, onSubmit } = useRecordForm(defaults, { merges: rotationRecord.name });
  return (
    <FormProvider {...form}>
      <LockedForm value={locked}>
        <form onSubmit={onSubmit} noValidate className="stack">
          <UnsavedGuard busy={busy} />
          <h2>Turns</h2>
          <StaleNote stale={stale} conflicts={conflicts} />
          <Choice
            name="within"
            label="Units go round"
            options={[
              ['off', 'not at all'],
              ['block', 'inside their block'],
              ['area', 'inside their area'],
              ['all', 'over all positions'],
            ]}
          />
          <Field name="everyDays" label="Every" numeric suffix="days" />
          {!locked && (
            <div>
              <Button type="submit" variant="contained" disabled={busy}>
                Plan the rotation
              </Button>
            </div>
          )}
        </form>
      </LockedForm>
    </FormProvider>
  );
}

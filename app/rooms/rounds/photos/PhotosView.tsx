import './Photos.css';
import Button from '@mui/material/Button';
import Slider from '@mui/material/Slider';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { type ReactNode, useEffect, useState } from 'react';
import { useRevalidator } from 'react-router';
import { walkOrder } from '~core/design/layOut';
import type { TrialState } from '~core/log/state';
import type { UnitId } from '~core/model/ids';
import { planIndex } from '~core/plan/planIndex';
import { formatFigure, plural } from '~core/quantity/format';
import { livingUnits } from '~core/log/asked';
import { PickOne } from '../../../ui/PickOne';
import { PlanView } from '../../../ui/PlanView';
import { Tessera } from '../../../ui/Tessera';
import { BalanceFilters, balanceFilter } from './balanceFilter';
import { CoverChart } from './CoverChart';
import { PhotoDialog } from './PhotoDialog';
import { PhotoImport } from './PhotoImport';
import { TimeLapse } from './TimeLapse';
import { type Photo, type PhotosData, latestOf, photoDays, sideBySide, spotOf } from './photoData';

const RUN_MS = 700;

/** Photos of a trial: contenders side by side on a day, all units as the plan, one unit through time. */
export function PhotosView({ state, data, head }: { state: TrialState; data: PhotosData; head: ReactNode }) {
  const { plan } = state;
  const { photos, urls } = data;
  const revalidator = useRevalidator();
  const days = photoDays(photos);
  const [chosenDay, setDay] = useState<number | null>(null);
  const day = chosenDay !== null && days.includes(chosenDay) ? chosenDay : (days.at(-1) ?? 0);
  const [turn, setTurn] = useState(0);
  const [look, setLook] = useState<'side' | 'plan'>('side');
  const [running, setRunning] = useState(false);
  const [unitId, setUnitId] = useState<UnitId | null>(null);
  const [open, setOpen] = useState<Photo | null>(null);
  useEffect(() => {
    if (!running) return;
    const timer = setInterval(() => {
      const next = days[days.indexOf(day) + 1];
      if (next === undefined) setRunning(false);
      else setDay(next);
    }, RUN_MS);
    return () => clearInterval(timer);
  }, [running, day, days]);
  const indexOf = (id: UnitId | null) => {
    const unit = id === null ? undefined : planIndex(plan).unit(id);
    return unit ? planIndex(plan).treatmentOrder(unit.treatmentId) : -1;
  };
  const codeOf = (id: UnitId | null) => (id === null ? 'The trial' : (planIndex(plan).unit(id)?.code ?? '?'));
  const picture = (p: Photo, corner = true) => (
    <button
      type="button"
      className="photo-button"
      onClick={() => setOpen(p)}
      aria-label={`Photo of ${codeOf(p.unitId)}, day ${p.day}${p.cover ? `, ${formatFigure(p.cover.coverPercent, 0)} % covered` : ''}`}
    >
      <img src={urls.get(p.thumbSha256)} alt="" loading="lazy" style={{ filter: balanceFilter(p) }} />
      {corner && indexOf(p.unitId) >= 0 && (
        <span className="tile-corner">
          <Tessera index={indexOf(p.unitId)} size={22} />
        </span>
      )}
      {p.cover && <span className="cover-corner">{formatFigure(p.cover.coverPercent, 0)} %</span>}
    </button>
  );
  const compared = sideBySide(state, photos, day, turn);
  const most = Math.max(
    1,
    ...plan.treatments.map(
      (t) =>
        plan.units.filter(
          (u) => u.treatmentId === t.id && photos.some((p) => p.unitId === u.id && p.day === day),
        ).length,
    ),
  );
  const one = unitId ?? compared[0]?.unit.id ?? plan.units[0]?.id ?? null;
  const through = photos.filter((p) => p.unitId === one);
  return (
    <>
      {head}
      <BalanceFilters photos={photos} />
      {photos.length === 0 ? (
        <p className="quiet" style={{ maxWidth: '44rem' }}>
          Photos from one spot, at one height and in one light, show what no figure does: the same{' '}
          {plan.unitNoun} through time, contenders side by side on one day. The cover is measured on them.
        </p>
      ) : (
        <>
          <div className="inline-row no-print" style={{ marginBottom: '0.7rem' }}>
            <Button
              variant="outlined"
              color="secondary"
              onClick={() => document.getElementById('new-photos')?.scrollIntoView({ behavior: 'smooth' })}
            >
              Take photos
            </Button>
            <ToggleButtonGroup
              exclusive
              size="small"
              value={look}
              onChange={(_, v: 'side' | 'plan' | null) => v && setLook(v)}
              aria-label="How the day is shown"
            >
              <ToggleButton value="side" sx={{ textTransform: 'none', py: 0.4 }}>
                Side by side
              </ToggleButton>
              <ToggleButton value="plan" sx={{ textTransform: 'none', py: 0.4 }}>
                As the plan
              </ToggleButton>
            </ToggleButtonGroup>
            {look === 'side' && most > 1 && (
              <Button size="small" color="secondary" onClick={() => setTurn((turn + 1) % most)}>
                Other {plural(plan.unitNoun)} ({(turn % most) + 1} of {most})
              </Button>
            )}
            <Button size="small" color="secondary" onClick={() => window.print()}>
              Contact sheet
            </Button>
          </div>
          {look === 'side' ? (
            <div className="compare no-print">
              {compared.map(({ unit, photo }) => (
                <figure key={unit.id}>
                  {picture(photo)}
                  <figcaption>
                    <span>{planIndex(plan).treatment(unit.treatmentId)?.name}</span>
                    <span className="num quiet">{unit.code}</span>
                  </figcaption>
                </figure>
              ))}
            </div>
          ) : (
            <div className="no-print">
              <PlanView
                plan={plan}
                positions={state.positions}
                renderPlace={(_, unit) => {
                  const p = unit && latestOf(photos, unit.id, day);
                  return p ? (
                    <span className="photo-place">
                      {picture(p)}
                      {p.day !== day && <span className="small quiet">day {p.day}</span>}
                    </span>
                  ) : (
                    <span className="place" />
                  );
                }}
              />
            </div>
          )}
          {days.length > 1 && (
            <div className="inline-row no-print" style={{ margin: '0.4rem 0.8rem 1.4rem' }}>
              <span className="small quiet">day</span>
              <Slider
                min={days[0]!}
                max={days.at(-1)!}
                step={null}
                marks={days.map((d) => ({ value: d, label: String(d) }))}
                value={day}
                onChange={(_, v) => setDay(v)}
                aria-label="Day of the photos"
                color="secondary"
                sx={{ flex: 1, mx: 2 }}
              />
              <Button
                size="small"
                variant="outlined"
                color="secondary"
                onClick={() => {
                  if (!running && day === days.at(-1)) setDay(days[0]!);
                  setRunning(!running);
                }}
              >
                {running ? 'Stop' : 'Play the days'}
              </Button>
            </div>
          )}
          <div className="findings-grid no-print">
            <section aria-labelledby="through">
              <div className="inline-row">
                <h2 id="through">Through time</h2>
                <PickOne
                  label="Unit"
                  value={one ?? ''}
                  options={plan.units.map((u) => [u.id, u.code] as const)}
                  onPick={setUnitId}
                  sx={{ width: 130 }}
                />
              </div>
              {through.length === 0 ? (
                <p className="quiet">No photo of it yet.</p>
              ) : (
                <div className="through">
                  {through.map((p) => (
                    <figure key={p.entryId}>
                      {picture(p, false)}
                      <figcaption>
                        day {p.day}
                        {p.cover && ` · ${formatFigure(p.cover.coverPercent, 0)} %`}
                      </figcaption>
                    </figure>
                  ))}
                </div>
              )}
            </section>
            {photos.some((p) => p.cover) && (
              <section aria-labelledby="covers">
                <h2 id="covers">Cover of all</h2>
                <CoverChart plan={plan} photos={photos} />
              </section>
            )}
          </div>
          <TimeLapse state={state} photos={photos} />
          <div className="contact-sheet only-print" aria-hidden="true">
            {photos
              .filter((p) => p.day === day)
              .map((p) => (
                <figure key={p.entryId}>
                  <img src={urls.get(p.thumbSha256)} alt="" />
                  <figcaption className="small">
                    {codeOf(p.unitId)} · day {p.day}
                    {p.cover && ` · ${formatFigure(p.cover.coverPercent, 0)} %`}
                  </figcaption>
                </figure>
              ))}
          </div>
        </>
      )}
      <PhotoImport
        trialId={plan.id}
        units={walkOrder(livingUnits(state), state.positions)}
        lastOf={(id) => {
          const last = latestOf(photos, id, Infinity);
          return last && urls.get(last.thumbSha256);
        }}
        onKept={() => void revalidator.revalidate()}
      />
      {open && (
        <PhotoDialog
          key={open.entryId}
          plan={plan}
          photo={open}
          code={codeOf(open.unitId)}
          spot={spotOf(state, open.unitId)}
          earlier={photos.filter((p) => p.unitId === open.unitId && p.day < open.day)}
          onClose={() => setOpen(null)}
          onChanged={() => {
            setOpen(null);
            void revalidator.revalidate();
          }}
        />
      )}
    </>
  );
}

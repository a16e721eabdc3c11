import { wayWords } from '~core/model/plan';
import { HappenedWithin } from '../../walk/HappenedWithin';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { Link, useLocation, useSearchParams } from 'react-router';
import { plural } from '~core/quantity/format';
import { neededFor } from '~core/mixing/needed';
import { dateOfDay } from '~core/plan/days';
import { shortDate } from '../../ui/clock';
import { Tessera } from '../../ui/Tessera';
import { leaveFor } from '../../form/unsaved';
import { MixCard } from './MixCard';
import { LeftOver, Mixed } from './Mixed';
import type { Bottle } from '~core/mixing/bottles';
import type { MixingData } from './mixingData';
import { DryChoice, StepChoice, useTools } from './tools';

/** The mixing day: which day, with which tools, a list of bottles and the card of the open one. */
export function DayView({ data }: { data: MixingData }) {
  const { id, plan, bottles, day, days, today } = data;
  const [tools, setTools] = useTools(id, {
    scaleStepG: plan.scaleStepG,
    liquidStepMl: plan.mixing.liquidStepMl,
  });
  const [search, setSearch] = useSearchParams();
  const { key: visit } = useLocation();
  /** what was pressed here; a link followed since to another bottle counts instead */
  const [pressed, setPressed] = useState<{ key: string; visit: string } | null>(null);
  const chosen = pressed?.visit === visit ? pressed.key : null;
  const setChosen = (key: string) => setPressed({ key, visit });
  /** tools and papers are out, on a phone */
  const [more, setMore] = useState(false);
  const [another, setAnother] = useState<string | null>(null);
  const go = (change: Record<string, string | null>) => {
    const next = new URLSearchParams(search);
    for (const [k, v] of Object.entries(change)) {
      if (v === null) next.delete(k);
      else next.set(k, v);
    }
    setSearch(next);
  };
  const toDo = bottles.find((b) => b.mixed.length === 0);
  const open =
    bottles.find((b) => b.key === chosen) ??
    bottles.find((b) => b.letter === search.get('bottle')) ??
    toDo ??
    bottles[0];
  const [before, after] = [days.findLast((d) => d < day), days.find((d) => d > day)];
  const needed = neededFor(plan);
  const loose = plan.treatments.some((t) =>
    t.products.some((u) => u.fromDay === null && u.everyDays === null),
  );
  // What has no fixed days is mixed on any day up to now.
  const any = loose ? Array.from({ length: Math.max(0, today) + 1 }, (_, d) => d) : [];
  const listed = [...new Set([...days, ...any, day])].sort((a, b) => a - b);
  return (
    <>
      <div className="inline-row mix-tools no-print">
        <Button
          color="secondary"
          disabled={before === undefined}
          onClick={() => go({ day: String(before) })}
          aria-label="Mixing day before"
        >
          ←
        </Button>
        <TextField
          select
          size="small"
          label="Day of the trial"
          value={String(day)}
          onChange={(e) => go({ day: e.target.value })}
          sx={{ width: { xs: 168, sm: 215 } }}
        >
          {listed.map((d) => (
            <MenuItem key={d} value={String(d)}>
              day {d}, {shortDate(dateOfDay(plan.startDate, d))}
              {d === today ? ', today' : ''}
            </MenuItem>
          ))}
        </TextField>
        <Button
          color="secondary"
          disabled={after === undefined}
          onClick={() => go({ day: String(after) })}
          aria-label="Mixing day after"
        >
          →
        </Button>
        {day !== today && days.includes(today) && (
          <Button color="secondary" onClick={() => go({ day: String(today) })}>
            Today
          </Button>
        )}
        <Button className="phone-only" color="secondary" onClick={() => setMore(!more)} aria-expanded={more}>
          Tools
        </Button>
        <div className={more ? 'mix-more open' : 'mix-more'}>
          {needed.dry && <DryChoice tools={tools} measures={plan.mixing.measures} onChange={setTools} />}
          {(needed.liquid || data.stocks.length > 0) && (
            <StepChoice
              label="Liquids in steps of"
              unit="mL"
              steps={[0.1, 0.2, 0.5, 1, 2.5, 5, 10]}
              value={tools.liquidStepMl}
              onChange={(liquidStepMl) => setTools({ ...tools, liquidStepMl })}
            />
          )}
          {loose && days.length > 0 && (
            <Button color="secondary" onClick={() => go({ any: data.anyDay ? null : '1' })}>
              {data.anyDay ? 'Only what has fixed days' : 'With what has no fixed days'}
            </Button>
          )}
          {needed.inWater && (
            <Button component={Link} to={`/trial/${id}/labels?for=bottles`} color="secondary">
              Bottle tags
            </Button>
          )}
          <Button
            component={Link}
            to={`/trial/${id}/mixing-card?day=${day}${data.anyDay ? '&any=1' : ''}`}
            color="secondary"
          >
            {data.blind ? 'The helper’s mixing card' : 'Mixing card'}
          </Button>
        </div>
      </div>
      {bottles.length === 0 ? (
        <NothingDue data={data} />
      ) : (
        <div className="mix-day">
          <nav className="mix-list" aria-label="Bottles of the day">
            {bottles.map((b) => (
              <button
                key={b.key}
                type="button"
                className="mix-row"
                aria-current={b === open}
                onClick={() => {
                  if (b === open) return;
                  leaveFor(() => {
                    setChosen(b.key);
                    setAnother(null);
                  });
                }}
              >
                <Tessera index={b.index} size={26} />
                <span className="mix-who">
                  <strong>{b.letter}</strong>
                  {!data.blind && <span className="mix-name"> · {b.name}</span>}
                  <span className="small quiet">{status(b, plan.unitNoun)}</span>
                </span>
                <span
                  className={`step ${b.mixed.length === 0 ? '' : b.mixed.some((m) => m.fed) ? 'full' : 'half'}`}
                  title={b.mixed.length === 0 ? 'not mixed' : 'mixed'}
                />
              </button>
            ))}
          </nav>
          {open && (
            <section className="sheet mix-card" aria-label={`Bottle ${open.letter}`}>
              <HappenedWithin plan={plan} what="mixing" day={day}>
                {open.mixed.length > 0 && (
                  <Mixed
                    data={data}
                    bottle={open}
                    next={toDo ?? null}
                    onNext={() => toDo && leaveFor(() => setChosen(toDo.key))}
                  />
                )}
                {open.mixed.length > 0 && another !== open.key ? (
                  <div>
                    <Button size="small" color="secondary" onClick={() => setAnother(open.key)}>
                      Mix another batch
                    </Button>
                  </div>
                ) : (
                  <>
                    <LeftOver key={open.key} data={data} bottle={open} />
                    <MixCard
                      key={`${open.key}/${day}/${open.batch}`}
                      data={data}
                      bottle={open}
                      tools={tools}
                      onTools={setTools}
                      onSend={() => setChosen(open.key)}
                    />
                  </>
                )}
              </HappenedWithin>
            </section>
          )}
        </div>
      )}
    </>
  );
}

function status(b: Bottle, noun: string): string {
  const units = `${b.unitIds.length} ${b.unitIds.length === 1 ? noun : plural(noun)}`;
  if (b.mixed.length > 0) return b.mixed.some((m) => m.fed) ? `mixed and fed, ${units}` : `mixed, ${units}`;
  const what = b.way
    ? `${wayWords[b.way]}, `
    : { solution: '', direct: 'as it is, ', water: 'plain water, ', flush: 'flush, ' }[b.kind];
  return `${what}${b.volumeL !== null && b.kind !== 'direct' ? `${Number(b.volumeL.toPrecision(3))} L, ` : ''}${units}`;
}

/** An empty day teaches: what a programme is and where it is written. */
function NothingDue({ data }: { data: MixingData }) {
  const { id, plan, day, days } = data;
  const products = plan.treatments.some((t) => t.products.length > 0);
  return (
    <div className="empty">
      <h2>{days.length > 0 && products ? `Nothing is mixed on day ${day}` : 'No programme yet'}</h2>
      <p>
        {!products
          ? 'No contender has a product. A dose is written in Contenders: 5 mL/L, 1 tsp/gal, 2 caps per tank; Palazzo works out the batch, the rounding and the order.'
          : days.length > 0
            ? 'Choose a day on which something is due.'
            : 'In Contenders each dose has a first day and a number of days from one time to the next: “from day 3, every 7 days, 4 times, at 50 %”.'}
      </p>
      <div className="inline-row">
        <Button variant="outlined" color="secondary" component={Link} to={`/trial/${id}/contenders`}>
          Doses and days, in Contenders
        </Button>
        <Button component={Link} to="/calculator" color="secondary">
          The calculator
        </Button>
      </div>
    </div>
  );
}

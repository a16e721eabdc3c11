import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { useRevalidator } from 'react-router';
import { walkOrder } from '~core/design/layOut';
import { type StandStage, standStages } from '~core/log/kinds/stand';
import type { TrialState } from '~core/log/state';
import { standsAt, thinTo } from '~core/log/stand';
import type { UnitId } from '~core/model/ids';
import { planIndex } from '~core/plan/planIndex';
import { listNames, plural } from '~core/quantity/format';
import { livingUnits } from '~core/log/asked';
import type { Saying } from '../../store/change';
import { describeChangeError } from '../../store/errors';
import { appendEntries } from '../../store/trials';
import { LeaveGuard } from '../../form/UnsavedGuard';
import { PickOne } from '../../ui/PickOne';
import { useNotice } from '../../ui/Notices';

const RULE = 'the plant nearest its station stays; pulled on one day by someone who doesn’t know the names';

/** A whole number of plants; null for what isn’t one. */
const countOf = (text: string): number | null => (/^\d{1,5}$/.test(text.trim()) ? Number(text) : null);

/** Plants counted unit by unit, and all thinned to the same number by one rule. */
export function StandCounts({ state }: { state: TrialState }) {
  const { plan } = state;
  const notice = useNotice();
  const revalidator = useRevalidator();
  const [stage, setStage] = useState<StandStage>('up');
  const [typed, setTyped] = useState<ReadonlyMap<UnitId, string>>(new Map());
  const [chosen, setChosen] = useState('');
  const units = walkOrder(livingUnits(state), state.positions);
  const counted = standsAt(state, stage);
  const up = standsAt(state, 'up');
  const thinned = standsAt(state, 'thinned');
  const code = (id: UnitId) => planIndex(plan).unit(id)?.code ?? '?';
  const wrong = [...typed].filter(([, t]) => t.trim() !== '' && countOf(t) === null).map(([id]) => id);
  const write = async (lines: Saying[], said: string) => {
    const done = await appendEntries(plan.id, lines);
    notice({ text: done.ok ? said : describeChangeError(done.error) });
    if (!done.ok) return;
    setTyped(new Map());
    void revalidator.revalidate();
  };
  const save = () => {
    const lines = [...typed].flatMap(([unitId, text]): Saying[] => {
      const count = countOf(text);
      return count === null || counted.get(unitId) === count ? [] : [{ kind: 'stand', unitId, stage, count }];
    });
    if (lines.length === 0) return notice({ text: 'No new count was typed.' });
    void write(lines, `${lines.length} ${lines.length === 1 ? 'count is' : 'counts are'} in the log.`);
  };
  const all = units.every((u) => up.has(u.id));
  const fewest = Math.min(...units.map((u) => up.get(u.id) ?? Infinity));
  const to = countOf(chosen) ?? fewest;
  const thinning = all ? thinTo(new Map(units.map((u) => [u.id, up.get(u.id)!])), to) : [];
  const pulls = thinning.filter((t) => t.pull > 0 && thinned.get(t.unitId) !== to);
  const shorts = thinning.filter((t) => t.short > 0);
  return (
    <section className="section" aria-labelledby="counted">
      <LeaveGuard unsaved={[...typed.values()].some((t) => t.trim() !== '')} what="Counts that aren’t kept" />
      <h2 id="counted">Plants counted</h2>
      <div className="inline-row" style={{ margin: '0.7rem 0' }}>
        <PickOne<StandStage>
          label="Counted"
          value={stage}
          options={(Object.keys(standStages) as StandStage[]).map((s) => [s, standStages[s]] as const)}
          onPick={(s) => {
            setStage(s);
            setTyped(new Map());
          }}
          sx={{ width: 210 }}
        />
        <Button variant="outlined" disabled={wrong.length > 0} onClick={save}>
          Keep the counts
        </Button>
        <span className="small quiet">
          {counted.size} of {units.length} counted
        </span>
      </div>
      <div className="count-grid">
        {units.map((u) => {
          const text = typed.get(u.id) ?? '';
          const fault = text.trim() !== '' && countOf(text) === null;
          return (
            <TextField
              key={u.id}
              size="small"
              label={u.code}
              value={text}
              placeholder={counted.has(u.id) ? String(counted.get(u.id)) : ''}
              onChange={(e) => setTyped(new Map(typed).set(u.id, e.target.value))}
              error={fault}
              helperText={fault ? 'A whole number.' : undefined}
              slotProps={{
                inputLabel: { shrink: true },
                htmlInput: { inputMode: 'numeric', style: { fontFamily: 'var(--mono)' } },
              }}
            />
          );
        })}
      </div>
      {all && stage !== 'sown' && (
        <div className="stack tight" style={{ marginTop: '0.9rem' }}>
          <div className="inline-row" style={{ alignItems: 'start' }}>
            <TextField
              size="small"
              label="Thin all to"
              value={chosen}
              placeholder={String(fewest)}
              onChange={(e) => setChosen(e.target.value)}
              error={chosen.trim() !== '' && countOf(chosen) === null}
              slotProps={{ inputLabel: { shrink: true }, htmlInput: { inputMode: 'numeric' } }}
              sx={{ width: 130 }}
            />
            <p style={{ margin: '0.4rem 0' }}>
              {pulls.length === 0
                ? `All ${plural(plan.unitNoun)} have ${to} or fewer.`
                : `Pull ${listNames(pulls.map((t) => `${t.pull} from ${code(t.unitId)}`))}.`}
              {shorts.length > 0 &&
                ` Short: ${listNames(shorts.map((t) => `${code(t.unitId)} by ${t.short}`))}; fill from the spares, or thin all to ${fewest}.`}
            </p>
          </div>
          {pulls.length > 0 && (
            <>
              <p className="small quiet">One rule for all: {RULE}.</p>
              <Button
                variant="contained"
                sx={{ alignSelf: 'start' }}
                onClick={() =>
                  void write(
                    thinning.map((t) => ({
                      kind: 'stand',
                      unitId: t.unitId,
                      stage: 'thinned',
                      count: Math.min(t.up, to),
                      ...(t.pull > 0 && { rule: RULE }),
                    })),
                    `Thinned to ${to}: it is in the log.`,
                  )
                }
              >
                Thinned: write it down
              </Button>
            </>
          )}
        </div>
      )}
    </section>
  );
}

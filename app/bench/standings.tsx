import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useMemo, useState } from 'react';
import { Link, useLoaderData } from 'react-router';
import { todayDate } from '../ui/clock';
import { type StandingTrial, sayStandings, standingsOf } from '~core/standings/overTrials';
import { listProducts } from '../store/products';
import { standingTrials } from './standingTrials';
import { ReportTable } from '../ui/Report';
import { ladder } from '~core/picture/ladder';
import { network } from '~core/picture/network';
import { Picture } from '../ui/pictures/Picture';
import { usePictureRoom } from '../ui/pictures/usePictureRoom';

export async function clientLoader() {
  const standing = (await standingTrials(todayDate())).flat();
  const library = new Map((await listProducts()).map((p) => [p.id, p.tile]));
  // A product stands here by the name it had in its trials.
  const tiles: Record<string, number | undefined> = Object.fromEntries(
    standing.flatMap((s) =>
      s.plan.treatments.flatMap((t) => t.products.slice(0, 1).map((u) => [t.name, library.get(u.productId)])),
    ),
  );
  return { standing: standing.sort((a, b) => b.plan.startDate.localeCompare(a.plan.startDate)), tiles };
}

const familyNames: Record<string, string> = { g: 'weight', kg: 'weight in kg', cm: 'height or length' };

export default function StandingsPage() {
  const { standing, tiles } = useLoaderData<typeof clientLoader>();
  const room = usePictureRoom();
  const families = useMemo(() => [...new Set(standing.map((s) => s.family))], [standing]);
  const crops = useMemo(() => [...new Set(standing.map((s) => s.crop))], [standing]);
  const [family, setFamily] = useState(families.includes('g') ? 'g' : (families[0] ?? ''));
  const [crop, setCrop] = useState('');
  const [turned, setTurned] = useState<Record<string, boolean>>({});
  // Of several traits of a family the deciding one speaks for its trial, else the first.
  const here = useMemo(() => {
    const fitting = standing.filter((s) => s.family === family && (crop === '' || s.crop === crop));
    const byTrial = new Map<string, (typeof fitting)[number]>();
    for (const s of fitting) {
      const known = byTrial.get(s.id);
      if (!known || s.finding.trait.id === s.plan.primaryTraitId) byTrial.set(s.id, s);
    }
    return [...byTrial.values()];
  }, [standing, family, crop]);
  const counts = (s: StandingTrial) => turned[s.id] ?? s.faults.length === 0;
  const countedTrials = here.filter(counts);
  const standings = standingsOf(countedTrials);
  const { meta, reference, edges, apart, notPooled } = standings;
  const products = [...(meta?.products.map((p) => p.name) ?? []), ...apart];
  const sentences = sayStandings(standings);
  if (standing.length === 0) {
    return (
      <div className="empty">
        <h1>Standings</h1>
        <p>
          What products do over several trials. It takes finished trials with open codes in which something
          was weighed or measured.
        </p>
        <Link to="/">All trials</Link>
      </div>
    );
  }
  return (
    <>
      <div className="room-head">
        <h1>{sentences[0]}</h1>
        <p>
          {reference === null
            ? 'It takes a finished trial with two units of each, compared fairly or ticked all the same.'
            : `Standings over ${standings.pooled.length === 1 ? 'one trial' : `${standings.pooled.length} trials`}: what each product did against ${reference}.`}
        </p>
      </div>
      <div className="inline-row" style={{ marginBottom: '1rem' }}>
        <TextField
          select
          label="What was measured"
          value={family}
          onChange={(e) => setFamily(e.target.value)}
          sx={{ width: 220 }}
        >
          {families.map((f) => (
            <MenuItem key={f} value={f}>
              {familyNames[f] ? `${familyNames[f]} (${f})` : f}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          select
          label="Crop"
          value={crop}
          onChange={(e) => setCrop(e.target.value)}
          sx={{ width: 220 }}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        >
          <MenuItem value="">all crops</MenuItem>
          {crops.map((c) => (
            <MenuItem key={c} value={c}>
              {c}
            </MenuItem>
          ))}
        </TextField>
      </div>
      <div className="findings-grid">
        <div className="stack">
          {meta && reference !== null && (
            <Picture
              drawing={ladder(
                meta.products.map((p) => ({ ...p, reference: p.name === reference, tile: tiles[p.name] })),
                reference,
                room,
              )}
              caption={`Each product’s change against ${reference} with its 95 % interval, over all trials that count. Right of the line is more.`}
              label={sentences[0]!}
              file="standings"
            />
          )}
          <details className="folded">
            <summary>Which stood side by side</summary>
            <Picture
              drawing={network(products, edges, room)}
              caption="A line joins products that stood side by side in a trial, thicker with more trials."
              label={`Products compared: ${products.join(', ')}`}
              file="standings-network"
            />
          </details>
        </div>
        <div className="stack">
          <ul className="report-list">
            {sentences.slice(1).map((s) => (
              <li key={s}>{s}</li>
            ))}
          </ul>
          <p>
            <Link to="/season">What to test next</Link>
          </p>
          <details className="folded">
            <summary>In figures</summary>
            {meta && (
              <ReportTable
                table={{
                  type: 'table',
                  columns: [
                    { head: `against ${reference}`, numeric: false },
                    { head: 'trials', numeric: true },
                    { head: 'change, %', numeric: true },
                    { head: '95 %', numeric: true },
                    { head: 'P-score', numeric: true },
                  ],
                  rows: [...meta.products]
                    .sort((a, b) => b.pScore - a.pScore)
                    .map((p) => ({
                      cells: [
                        { type: 'text', text: p.name },
                        { type: 'figure', value: p.trials, decimals: 0 },
                        {
                          type: 'figure',
                          value: p.name === reference ? null : p.percent,
                          decimals: 0,
                          signed: true,
                        },
                        {
                          type: 'interval',
                          low: p.name === reference ? null : p.low,
                          high: p.name === reference ? null : p.high,
                          decimals: 0,
                        },
                        { type: 'figure', value: p.pScore, decimals: 2 },
                      ],
                    })),
                }}
              />
            )}
          </details>
          <h2>Trials that count</h2>
          {here.map((s) => (
            <div key={s.id}>
              <FormControlLabel
                control={
                  <Checkbox
                    size="small"
                    checked={counts(s)}
                    onChange={(e) => setTurned({ ...turned, [s.id]: e.target.checked })}
                  />
                }
                label={s.title}
              />
              {s.faults.length > 0 && (
                <div className="small warning">Left out unless ticked: {s.faults.join(', ')}</div>
              )}
              {notPooled.some((n) => n.id === s.id) && (
                <div className="small quiet">Not pooled: {notPooled.find((n) => n.id === s.id)!.why}.</div>
              )}
            </div>
          ))}
          <p className="small quiet">
            Log ratio of means, random effects with one variance between trials (REML, correlation ½ inside a
            trial); P-score: mean certainty of being better than another (Rücker and Schwarzer 2015).
          </p>
        </div>
      </div>
    </>
  );
}

import { HappenedWithin } from '../../walk/HappenedWithin';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { driftOf, inBand } from '~core/mixing/drift';
import { regimenNames } from '~core/model/plan';
import { temperatureUnit } from '~core/quantity/region';
import { shortDate } from '../../ui/clock';
import { AllVessels } from './AllVessels';
import { PhPart } from './PhPart';
import { ReadingForm } from './ReadingForm';
import { ReadingsChart } from './ReadingsChart';
import { TopUpPart } from './TopUpPart';
import type { MixingData } from './mixingData';
import { changeText, readingText } from './readingText';
import { leaveFor } from '../../form/unsaved';
import { type Vessel, noBand, vesselsOf } from '~core/mixing/vessels';

/** In place of one vessel's key. */
const ALL = 'all';

const quantities = [
  ['ec', 'EC (strength)', 'mS/cm', 2],
  ['ph', 'pH', '', 1],
  ['temperature', 'Temperature', '', 1],
] as const;

/** Readings, drift, band, top-ups and pH of one vessel at a time. */
export function ReservoirsView({ data }: { data: MixingData }) {
  const { plan, sealed } = data;
  const vessels = vesselsOf(data);
  const [chosen, setChosen] = useState(
    () =>
      (vessels.find((v) => v.fed && v.readings.ec.length > 0) ?? vessels.find((v) => v.fed) ?? vessels[0])
        ?.key ?? '',
  );
  const all = chosen === ALL;
  const vessel = vessels.find((v) => v.key === chosen) ?? vessels[0];
  if (!vessel) {
    return (
      <div className="empty">
        <h2>No vessels yet</h2>
        <p>Once units are laid out, each of them and each contender’s bottle can be read here.</p>
      </div>
    );
  }
  return (
    <div className="stack">
      <div className="inline-row">
        <TextField
          select
          size="small"
          label="Vessel"
          value={all ? ALL : vessel.key}
          onChange={(e) => leaveFor(() => setChosen(e.target.value))}
          sx={{ width: 280 }}
        >
          <MenuItem value={ALL}>all vessels, in one table</MenuItem>
          {vessels.map((v) => (
            <MenuItem key={v.key} value={v.key}>
              {v.name}
            </MenuItem>
          ))}
        </TextField>
        <span className="small quiet">
          Regimen: {regimenNames[plan.mixing.regimen]}.{' '}
          {plan.mixing.band.source && `Band from: ${plan.mixing.band.source}.`}
        </span>
      </div>
      {all ? (
        // What another tab writes down meanwhile leaves what is typed here.
        <HappenedWithin plan={plan} what="reservoirs" day={data.today}>
          <AllVessels key={vessels.map((v) => v.key).join()} vessels={vessels} sealed={sealed} />
        </HappenedWithin>
      ) : (
        <div className="reservoir">
          <section>
            <DriftTable data={data} vessel={vessel} />
            <ReadingsChart vessel={vessel} band={vessel.fed ? plan.mixing.band : noBand} />
          </section>
          <section className="stack">
            {sealed ? (
              <HappenedWithin plan={plan} what="reservoirs" day={data.today}>
                <ReadingForm key={`r ${vessel.key}`} data={data} vessel={vessel} />
                <TopUpPart key={`t ${vessel.key}`} data={data} vessel={vessel} />
                <PhPart key={`p ${vessel.key}`} data={data} vessel={vessel} />
              </HappenedWithin>
            ) : (
              <p className="note open small">Readings are written down once the plan is sealed in Layout.</p>
            )}
          </section>
        </div>
      )}
    </div>
  );
}

/** From the first reading to the last, in words and against the band. */
function DriftTable({ data, vessel }: { data: MixingData; vessel: Vessel }) {
  // Plain water isn’t kept in a band of feed.
  const band = vessel.fed ? data.plan.mixing.band : noBand;
  const limits = {
    ec: [band.ecLow, band.ecHigh],
    ph: [band.phLow, band.phHigh],
    temperature: [null, null],
  } as const;
  return (
    <table className="ledger as-rows">
      <thead>
        <tr>
          <th>reading</th>
          <th className="n">first</th>
          <th className="n">last</th>
          <th className="n">change</th>
        </tr>
      </thead>
      <tbody>
        {quantities.map(([quantity, name, unit, digits]) => {
          const readings = vessel.readings[quantity];
          const last = readings[readings.length - 1];
          const drift = driftOf(readings);
          const [low, high] = limits[quantity];
          const stand = last ? inBand(last.value, low, high) : null;
          const range = [low, high].some((x) => x !== null) ? `${low ?? '–'} to ${high ?? '–'}` : '';
          return (
            <tr key={quantity}>
              <td>
                {name}
                <div className="small">
                  {stand === 'above' || stand === 'below' ? (
                    <strong style={{ color: 'var(--ochre-text)' }}>
                      {stand} {range}
                    </strong>
                  ) : stand === 'within' ? (
                    `within ${range}`
                  ) : (
                    <span className="quiet">{range ? `band ${range}` : 'no band set'}</span>
                  )}
                </div>
              </td>
              <td className="n" data-label="first">
                {readings[0] ? readingText(quantity, readings[0].value, digits) : '–'}
              </td>
              <td className="n" data-label="last">
                {last ? readingText(quantity, last.value, digits) : '–'}{' '}
                <span className="unit">
                  {last ? (quantity === 'temperature' ? temperatureUnit() : unit) : ''}
                </span>
                {last && <div className="small quiet">{shortDate(last.at)}</div>}
              </td>
              <td className="n small" data-label="change">
                {drift
                  ? `${changeText(quantity, drift.change, digits)}${drift.perDay === null ? '' : ` in ${Number(drift.days.toPrecision(2))} d`}`
                  : '–'}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

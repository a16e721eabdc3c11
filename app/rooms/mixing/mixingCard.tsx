import { tilesOf } from '~core/plan/tiles';
import { Tiles } from '../../ui/Tiles';
import { titled } from '../../ui/title';
import { temperatureUnit } from '~core/quantity/region';
import Button from '@mui/material/Button';
import { Link, useLoaderData } from 'react-router';
import { spoonsText } from '~core/mixing/spoons';
import { formatSigned, plural } from '~core/quantity/format';
import { dateOfDay } from '~core/plan/days';
import { shortDate } from '../../ui/clock';
import { Caution } from '../../ui/Caution';
import { RoomHead } from '../../ui/RoomHead';
import { TesseraName } from '../../ui/Tessera';
import { MixingClosed, useHelper } from '../OnlyHelper';
import '../prints/labels.css';
import { batchOf } from '~core/mixing/batch';
import { batchCaution } from '~core/mixing/batchCaution';
import { neededFor } from '~core/mixing/needed';
import { bottleTitle } from '~core/mixing/bottles';
import { type MixingData, loadMixing } from './mixingData';
import './mixing.css';
import { DryChoice, useTools } from './tools';

export const meta = () => titled('Mixing card');

export const clientLoader = loadMixing;

/** The day's recipes and steps on paper; under codes while the trial is blind. */
export default function MixingCard() {
  const data = useLoaderData<MixingData>();
  const [helper, sayHelper] = useHelper(data.id);
  if (!data.blind || helper)
    return (
      <Tiles value={tilesOf(data.plan)}>
        <OpenCard data={data} />
      </Tiles>
    );
  return (
    <main className="labels-page" id="room">
      <RoomHead title="The helper’s mixing card">{data.plan.code}</RoomHead>
      <MixingClosed onShow={sayHelper} />
    </main>
  );
}

function OpenCard({ data }: { data: MixingData }) {
  const { id, plan, day, bottles, blind } = data;
  const [tools, setTools] = useTools(id, {
    scaleStepG: plan.scaleStepG,
    liquidStepMl: plan.mixing.liquidStepMl,
  });
  return (
    <main className="labels-page" id="room">
      <RoomHead
        title={blind ? 'The helper’s mixing card' : 'Mixing card'}
        actions={
          <span className="inline-row">
            {neededFor(plan).dry && (
              <DryChoice tools={tools} measures={plan.mixing.measures} onChange={setTools} />
            )}
            <Button component={Link} to={`/trial/${id}/mixing?day=${day}`} color="secondary">
              Back to the mixing
            </Button>
            <Button component={Link} to={`/trial/${id}/labels?for=bottles`} color="secondary">
              Bottle tags
            </Button>
            {blind && (
              <Button component={Link} to={`/trial/${id}/labels?for=jars`} color="secondary">
                Jar tags
              </Button>
            )}
            <Button variant="contained" onClick={() => window.print()}>
              Print the card
            </Button>
          </span>
        }
      >
        {plan.code} · day {day}, {shortDate(dateOfDay(plan.startDate, day))}
        {blind && ' · codes only: what is in a jar stands on the helper’s key card'}
      </RoomHead>
      {bottles.length === 0 && <p>Nothing is mixed on this day.</p>}
      {bottles.map((bottle) => {
        const direct = bottle.kind === 'direct';
        const size = direct ? bottle.unitIds.length : bottle.volumeL;
        const batch =
          size === null ? null : batchOf({ data, bottle, tools, size, fromStock: {}, actual: [] });
        return (
          <section key={bottle.key} className="section card-bottle">
            <h2>
              <TesseraName index={bottle.index} name={bottleTitle(bottle, blind)} size={26} />{' '}
              <span className="quiet small">
                {direct ? 'as it is' : size === null ? '' : `${Number(size.toPrecision(4))} L`} for{' '}
                {bottle.unitIds.length} {bottle.unitIds.length === 1 ? plan.unitNoun : plural(plan.unitNoun)}
                {bottle.perUnitL !== null && `, ${bottle.perUnitL} L each`} · batch {bottle.batch}
              </span>
            </h2>
            {batch && batch.lines.length > 0 && (
              <table className="ledger">
                <tbody>
                  {batch.lines.map((l) => (
                    <tr key={l.product.id}>
                      <td>{l.name}</td>
                      <td className="n measure">
                        {l.spooned && !l.stock ? (
                          spoonsText(l.given, plan.mixing.measures)
                        ) : (
                          <>
                            {Number(l.given.toPrecision(4))}{' '}
                            <span className="unit">{l.stock ? `mL of stock ${l.stock.batch}` : l.unit}</span>
                          </>
                        )}
                      </td>
                      <td className="n small">{formatSigned(l.givenError, 1)} %</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            )}
            {batch?.conflicts.map((c) => (
              <p key={c} className="note bad">
                {c}
              </p>
            ))}
            <ol className="mix-steps" aria-label={`Steps of bottle ${bottle.letter}`}>
              {batch?.steps(bottle.batch).map((s) => (
                <li key={s.id}>
                  <label>
                    <input type="checkbox" />
                    <span>
                      {s.text}
                      {s.caution && <span className="step-caution small">{s.caution}</span>}
                    </span>
                  </label>
                </li>
              ))}
            </ol>
            {batch && batch.lines.length > 0 && <Caution>{batchCaution(batch.lines, direct)}</Caution>}
            <p className="small quiet">
              Really: ________________{!direct && ` EC ______ pH ______ ${temperatureUnit()} ______`} by
              ____________
            </p>
          </section>
        );
      })}
      {neededFor(plan).inWater && (
        <Caution>
          Acid into water, never water into acid. Left-over solution: on garden soil within reason, never to a
          watercourse; local rules come first.
        </Caution>
      )}
    </main>
  );
}

import { z } from 'zod';
import { paperHere } from '../../ui/region';
import Button from '@mui/material/Button';
import { type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import {
  type Opening,
  crowding,
  howManyFit,
  leastDistance,
  sowingFor,
  stations,
  templateSheets,
} from '~core/design/stations';
import { protocolOf } from '~core/schedule/protocols';
import { papers } from '~core/formats/labelSheet';
import type { Paper } from '~core/quantity/regionUnits';
import { lengthField, lengthText, sidesText, sizeUnitsOf, withUnit } from '~core/quantity/sizeText';
import { countOf, plural } from '~core/quantity/format';
import { fieldText, optionalSize, typedNumber } from '../../form/schemaFields';
import { TypedField, faultIn } from '../../form/TypedField';
import { PickOne } from '../../ui/PickOne';
import { download } from '../../ui/download';
import type { LayoutData } from './layoutData';
import { pdfBlob } from '../../ui/pdfBlob';
import { StandCounts } from './StandCounts';
import { templateDocument } from '../prints/templatePdf';

const plantsAsked = 'A whole number from 1 to 400.';
const howMany = typedNumber(plantsAsked).pipe(
  z.number().int(plantsAsked).min(1, plantsAsked).max(400, plantsAsked),
);
const across = optionalSize('length');
const shareAsked = 'Above 0, up to 100 %.';
const share = typedNumber(shareAsked).pipe(z.number().positive(shareAsked).max(100, shareAsked));
const seedWeight = optionalSize('mass');

/** Planting day: how many fit, where they go, what is sown; a template at 1:1 to prick through. */
export function PlantingView({ plan, state, seal, head }: LayoutData & { head: ReactNode }) {
  const units = sizeUnitsOf(plan);
  const like = plan.treatments[0]?.conditions;
  const [plants, setPlants] = useState(
    String(like?.plantsPerUnit ?? protocolOf(plan.protocolId)?.plantsPerUnit ?? 1),
  );
  const [width, setWidth] = useState('');
  const [germination, setGermination] = useState('90');
  const [purity, setPurity] = useState('100');
  const [thousand, setThousand] = useState(fieldText(like?.thousandSeedG));
  const [paper, setPaper] = useState<Paper>(paperHere);
  const [making, setMaking] = useState(false);
  const { unitWidthCm, unitDepthCm, unitNoun } = plan;
  if (!unitWidthCm || !unitDepthCm) {
    return (
      <>
        {head}
        {seal && <StandCounts state={state} />}
        <div className="empty">
          <h2>How large is a {unitNoun}?</h2>
          <p>With its width and depth, how many plants fit is worked out, and a template at 1:1 is drawn.</p>
          <Link to={`/trial/${plan.id}/layout?view=places`}>Give its size under Areas</Link>
        </div>
      </>
    );
  }
  const opening: Opening = { shape: plan.unitShape, widthCm: unitWidthCm, depthCm: unitDepthCm };
  const read = <T,>(of: z.ZodType<T, string>, text: string) => of.safeParse(text).data ?? null;
  const count = read(howMany, plants);
  const plantCm = read(across, withUnit(width, 'length', units.inches));
  const list = count === null ? [] : stations(opening, count);
  const [g, p] = [read(share, germination), read(share, purity)];
  const sowing =
    count !== null && g !== null && p !== null
      ? sowingFor(count, {
          germinationPercent: g,
          purityPercent: p,
          thousandSeedG: read(seedWeight, thousand),
        })
      : null;
  const counts = new Set(plan.treatments.map((x) => x.conditions.plantsPerUnit));
  const save = async () => {
    setMaking(true);
    download(
      await pdfBlob(
        templateDocument(opening, list, plantCm, paper, `${plan.code}, ${count} in a ${unitNoun}`),
      ),
      `${plan.code.toLowerCase()}-template.pdf`,
    );
    setMaking(false);
  };
  return (
    <div className="with-side">
      <div className="main">
        {head}
        <svg
          viewBox={`-1 -1 ${unitWidthCm + 2} ${unitDepthCm + 2}`}
          style={{
            maxWidth: 460,
            width: '100%',
            background: 'var(--sheet)',
            border: '1px solid var(--line)',
          }}
          role="img"
          aria-label={`${list.length} stations in a ${unitNoun} of ${sidesText(unitWidthCm, unitDepthCm, units)}`}
        >
          {plan.unitShape === 'round' ? (
            <circle
              cx={unitWidthCm / 2}
              cy={unitDepthCm / 2}
              r={unitWidthCm / 2}
              fill="none"
              stroke="var(--ink)"
              strokeWidth={0.15}
            />
          ) : (
            <rect
              width={unitWidthCm}
              height={unitDepthCm}
              fill="none"
              stroke="var(--ink)"
              strokeWidth={0.15}
            />
          )}
          {list.map((s, i) => (
            <g key={i}>
              {plantCm !== null && (
                <circle cx={s.x} cy={s.y} r={plantCm / 2} fill="var(--verdigris)" fillOpacity={0.18} />
              )}
              <circle cx={s.x} cy={s.y} r={unitWidthCm / 110} fill="var(--verdigris)" />
            </g>
          ))}
        </svg>
        {seal && <StandCounts state={state} />}
      </div>
      <aside className="side stack">
        <h2>Equal plants in each</h2>
        <TypedField label={`Plants in a ${unitNoun}`} of={howMany} value={plants} onType={setPlants} />
        <TypedField
          label="Full-grown, across"
          of={across}
          value={width}
          onType={setWidth}
          fault={faultIn(across, withUnit(width, 'length', units.inches))}
          placeholder={units.inches ? '4 in' : '10 cm'}
        />
        {plantCm !== null && count !== null && (
          <p className={count > howManyFit(opening, plantCm) ? 'note bad' : 'note good'}>
            {howManyFit(opening, plantCm)} fit without touching.
            {count > howManyFit(opening, plantCm) &&
              ` ${count} are crowded: they would cover ${Math.round(100 * crowding(opening, count, plantCm))} % of the opening; end before they close, the same day for all.`}
          </p>
        )}
        {list.length > 1 && (
          <p className="small quiet">
            {lengthText(Number(leastDistance(list).toFixed(1)), units)} from plant to plant at least.
          </p>
        )}
        {counts.size > 1 && (
          <p className="note bad">
            Contenders have different numbers of plants; that is unequal before the first feed.{' '}
            <Link to={`/trial/${plan.id}/contenders`}>Make them alike</Link>
          </p>
        )}
        <h3>Sowing</h3>
        <div className="field-pair">
          <TypedField label="Germination" suffix="%" of={share} value={germination} onType={setGermination} />
          <TypedField label="Purity" suffix="%" of={share} value={purity} onType={setPurity} />
        </div>
        <TypedField
          label="Thousand-seed weight"
          suffix="g"
          of={seedWeight}
          value={thousand}
          onType={setThousand}
        />
        {sowing && (
          <p role="status">
            <strong>{sowing.seeds} seeds</strong> in each {unitNoun}
            {sowing.weightG !== null && ` · ${Number(sowing.weightG.toPrecision(3))} g`}
            {plan.units.length > 0 && (
              <span className="small quiet">
                {' '}
                · {sowing.seeds * (plan.units.length + plan.spares)} in all,{' '}
                {plan.spares === 0 ? 'no spares' : countOf(plan.spares, 'spare')} sown aside
              </span>
            )}
          </p>
        )}
        <p className="small quiet">
          Thin all to one number, by one rule, on one day; whoever thins doesn’t know the names. Where too few
          came up, plant from the spares. Sown by a shaker or spoon: weigh what one stroke gives, ten times.
        </p>
        <div className="inline-row">
          <PickOne
            label="Paper"
            value={paper}
            options={(Object.keys(papers) as Paper[]).map((k) => [k, k] as const)}
            onPick={setPaper}
            sx={{ width: 110 }}
          />
          <Button variant="contained" disabled={making || count === null} onClick={() => void save()}>
            Template 1:1 (PDF)
          </Button>
        </div>
        <p className="small quiet">
          {templateSheets(opening).length === 1
            ? 'One sheet'
            : `${templateSheets(opening).length} sheets to glue`}{' '}
          for {plural(unitNoun)} of {lengthField(unitWidthCm, units)} × {lengthField(unitDepthCm, units)}
          {units.inches ? '' : ' cm'}; each has a ruler to check the printer by.
        </p>
      </aside>
    </div>
  );
}

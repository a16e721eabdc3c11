import { experimentalNoun, measuredPer } from '~core/plan/sharing';
import Button from '@mui/material/Button';
import type { Plan } from '~core/model/plan';
import { planIndex } from '~core/plan/planIndex';
import { kaplanMeier } from '~core/stats/survival';
import { chartCaption } from '~core/report/findingBlocks';
import { findingSvg } from '~core/report/findingSvg';
import { paperInk } from '~core/report/paper';
import type { Finding } from '~core/account/finding';
import { FindingChart } from '../../ui/FindingChart';
import { bytesOf, download } from '../../ui/download';
import { findingPng } from '../../ui/findingChart';
import { ProportionDots } from '../../ui/pictures/ProportionDots';
import { StepCurves } from '../../ui/pictures/StepCurves';
import type { Lane } from '../../ui/pictures/lanes';

interface Props {
  plan: Plan;
  finding: Finding;
  lanes: Lane[];
  /** nothing marks the control: names are hidden, or equals are compared */
  unmarked: boolean;
  title: string;
}

/** The finding drawn as its kind of value asks for: dots of k of n, curves of days until, tiles for all else. */
export function FindingPicture({ plan, finding, lanes, unmarked, title }: Props) {
  const { analysis, trait, units } = finding;
  const file = `${plan.code} ${trait.name}`;
  const noun = experimentalNoun(plan);
  if (analysis.method === 'proportions' && units.every((u) => u.counted)) {
    return (
      <ProportionDots
        lanes={lanes.filter((l) => analysis.summaries.some((s) => s.name === l.id))}
        units={units.map((u) => ({ id: u.unitId, code: u.code, lane: u.treatmentId, ...u.counted! }))}
        pooled={analysis.summaries.map((s) => ({
          lane: s.name,
          share: s.estimate,
          low: s.low,
          high: s.high,
          counted: s.counted ?? '',
        }))}
        label={title}
        file={file}
        unitNoun={noun}
      />
    );
  }
  if (analysis.method === 'times' && units.every((u) => u.seen)) {
    const shown = lanes.filter((l) => analysis.summaries.some((s) => s.name === l.id));
    return (
      <StepCurves
        lanes={shown}
        curves={shown.map((l) => {
          const own = units.filter((u) => u.treatmentId === l.id);
          return {
            lane: l.id,
            steps: kaplanMeier(own.map((u) => ({ time: u.seen!.day, happened: u.seen!.happened }))).map(
              (s) => ({ day: s.time, share: s.survival }),
            ),
            open: own.flatMap((u) => (u.seen!.happened ? [] : [{ code: u.code, day: u.seen!.day }])),
          };
        })}
        until={Math.max(...units.map((u) => u.seen!.day))}
        label={title}
        file={file}
        unitNoun={noun}
      />
    );
  }
  const shaded =
    trait.direction === 'band'
      ? ` Shaded: the wanted band of ${trait.bandLow}–${trait.bandHigh} ${trait.unit}.`
      : finding.smallestDifference !== null && !unmarked
        ? ' Shaded: differences from the control too small to matter.'
        : '';
  const png = async () => {
    const uri = await findingPng({ finding, lanes, per: measuredPer(plan), blind: unmarked });
    download(
      new Blob([bytesOf(uri)], { type: 'image/png' }),
      `${plan.code}-${trait.name.toLowerCase().replaceAll(' ', '-')}.png`,
    );
  };
  return (
    <>
      <FindingChart
        finding={finding}
        lanes={lanes}
        blind={unmarked}
        per={measuredPer(plan)}
        caption={title}
      />
      <p className="small quiet" style={{ margin: '0.6rem 0' }}>
        {chartCaption(finding, noun)}
        {shaded}
      </p>
      <Button color="secondary" size="small" onClick={() => void png()}>
        Picture (PNG)
      </Button>
      <Button
        color="secondary"
        size="small"
        onClick={() =>
          download(
            new Blob([findingSvg({ finding, lanes, per: measuredPer(plan), unmarked, ink: paperInk })], {
              type: 'image/svg+xml',
            }),
            `${file.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-')}.svg`,
          )
        }
      >
        Picture (SVG)
      </Button>
    </>
  );
}

/** Lanes of the contenders that are in a finding. */
export const lanesIn = (plan: Plan, ids: readonly string[]): Lane[] =>
  ids.map((id) => ({
    id,
    name: planIndex(plan).treatment(id)?.name ?? id,
    index: planIndex(plan).treatmentOrder(id),
  }));

import { sayDf } from '~core/quantity/format';
import { formatFigure, plural, sentenceCase } from '~core/quantity/format';
import { sharedNoun } from '~core/schedule/withRoom';
import { sayShared, sharesPlace } from '~core/plan/sharing';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { FormProvider, useWatch } from 'react-hook-form';
import { positionsOf } from '~core/design/layOut';
import { residualDf } from '~core/design/power';
import { type DesignKind, type Plan, designKinds, designNames } from '~core/model/plan';
import { Choice, Field, LockedForm, Written } from '../../form/fields';
import { usePost } from '../../form/usePost';
import { useRecordForm } from '../../form/useRecordForm';
import type { DesignFormInput } from './layoutForms';

export const freshSeed = () => String(crypto.getRandomValues(new Uint32Array(1))[0]! % 1_000_000);

const explained: Record<DesignKind, string> = {
  rcbd: 'each block of neighbours holds every contender once',
  crd: 'chance over all positions alike',
  latin: 'every row and every column holds each contender once: light from two sides is taken off',
  split: 'each machine, tank or level holds every contender once; settings go to whole main plots',
  interleave:
    'along the rows in this order; nothing left to chance, no blocks to take off: allowed, but readers will ask',
  hand: 'readers will ask why; say it in the review',
};

/** How units are handed out over the positions. */
export function DesignPart({ plan, locked }: { plan: Plan; locked: boolean }) {
  const post = usePost();
  const { form, busy, onSubmit } = useRecordForm<DesignFormInput>({
    intent: 'design',
    kind: plan.design?.kind ?? 'rcbd',
    replicates: String(plan.design?.replicates ?? 4),
    inEach: '1',
    seed: plan.design ? String(plan.design.seed) : freshSeed(),
    settings: plan.design?.settings.join(', ') ?? '',
  });
  const values = useWatch({ control: form.control });
  const shared = sharesPlace(plan);
  const place = sharedNoun(plan);
  const kind = values.kind ?? 'rcbd';
  const k = plan.treatments.length;
  const settings =
    kind === 'split' ? (values.settings ?? '').split(/[,\n]/).filter((s) => s.trim()).length : 0;
  const each = (Number(values.replicates) || 0) * Math.max(1, settings);
  const room = positionsOf(plan.areas).length;
  const blocked = kind !== 'crd' && kind !== 'hand' && kind !== 'interleave';
  const df = residualDf({
    treatments: k,
    replicates: each,
    blocks: blocked ? each : 1,
    columns: kind === 'latin' ? each - (each / k - 1) : 1,
    alpha: 0.05,
  });
  const places = Number(values.replicates) || 0;
  const systematic = !shared && (kind === 'hand' || kind === 'interleave');
  const noun = plural(plan.unitNoun);
  return (
    <FormProvider {...form}>
      <LockedForm value={locked}>
        <form onSubmit={onSubmit} noValidate className="stack">
          <h2>Who stands where</h2>
          {locked ? (
            <Written label="Gets its product on its own" text={`each ${shared ? place : plan.unitNoun}`} />
          ) : (
            <TextField
              select
              label="What gets its product on its own?"
              value={shared ? 'place' : 'nothing'}
              onChange={(e) => post({ intent: 'share', unitsShare: e.target.value })}
            >
              <MenuItem value="nothing">each {plan.unitNoun}</MenuItem>
              <MenuItem value="place">each {place}: what stands in it gets it together</MenuItem>
            </TextField>
          )}
          {!shared && (
            <Choice
              name="kind"
              label="Design"
              options={designKinds.map((d) => [d, designNames[d]] as const)}
              helperText={explained[kind]}
            />
          )}
          {!shared && kind === 'split' && (
            <Field
              name="settings"
              label="Settings of the main plots"
              helperText="two lamps, two tanks …, between commas; may be empty"
            />
          )}
          <Field
            name="replicates"
            label={
              shared
                ? `${sentenceCase(plural(place))} of each contender`
                : kind === 'rcbd'
                  ? 'Blocks'
                  : kind === 'split'
                    ? settings > 0
                      ? 'Main plots of each setting'
                      : 'Main plots'
                    : `${noun} of each contender`
            }
            numeric
            helperText={
              k > 0 && shared && places > 0
                ? sayShared(k, places, place)
                : k > 0
                  ? `${k * each} ${noun} on ${room === 0 ? 'an area made for them' : `${room} positions`}; ${sayDf(Math.max(0, Math.floor(df) || 0))}, 12 are wanted`
                  : 'add contenders first'
            }
          />
          {shared && plan.areas.length === 0 && (
            <Field name="inEach" label={`${sentenceCase(noun)} in each ${place}`} numeric />
          )}
          {!systematic && (
            <Field name="seed" label="Seed" numeric helperText="the same seed gives the same layout" />
          )}
          {plan.design?.balance && (
            <p className="small quiet">
              Balanced: taken from {plan.design.balance.candidates} draws; mean light{' '}
              {formatFigure(plan.design.balance.spreadPercent, 1)} % apart at most.
            </p>
          )}
          {!locked && (
            <div className="inline-row">
              <Button
                type="submit"
                variant={plan.units.length > 0 ? 'outlined' : 'contained'}
                disabled={busy}
              >
                {plan.units.length > 0 ? 'Lay out again' : systematic ? 'Set out' : 'Randomise'}
              </Button>
              {!systematic && (
                <Button
                  color="secondary"
                  onClick={() => form.setValue('seed', freshSeed(), { shouldDirty: true })}
                >
                  New seed
                </Button>
              )}
            </div>
          )}
        </form>
      </LockedForm>
    </FormProvider>
  );
}

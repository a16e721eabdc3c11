import Button from '@mui/material/Button';
import { useMemo } from 'react';
import { FormProvider } from 'react-hook-form';
import { mixedInUnits } from '~core/mixing/ownTank';
import { PRACTICE_SOURCE, practiceBands } from '~core/mixing/practiceBands';
import { neededFor } from '~core/mixing/needed';
import { regimenNames, regimens } from '~core/model/plan';
import { Choice, Field, LockedForm } from '../../form/fields';
import { StaleNote } from '../../form/StaleNote';
import { UnsavedGuard } from '../../form/UnsavedGuard';
import { useRecordForm } from '../../form/useRecordForm';
import { SealedBanner } from '../SealedBanner';
import type { MixingData } from './mixingData';
import { setUpRecord } from './setUpForm';

/** Tools, water, regimen, band and rates of exchange: the part of the plan that mixing rests on. */
export function SetUpView({ data }: { data: MixingData }) {
  const { id, plan, state } = data;
  const formValues = useMemo(() => setUpRecord.shown(plan), [plan]);
  const { form, busy, stale, conflicts, onSubmit } = useRecordForm(formValues, { merges: setUpRecord.name });
  const needed = neededFor(plan);
  const unsaid = { ...plan, mixing: { ...plan.mixing, inOwnTank: undefined } };
  const usual = (band: (typeof practiceBands)[number]) => {
    const put = (name: 'ecLow' | 'ecHigh' | 'phLow' | 'phHigh' | 'source', value: string) =>
      form.setValue(`mixing.band.${name}`, value, { shouldDirty: true });
    put('ecLow', String(band.ecLow));
    put('ecHigh', String(band.ecHigh));
    put('phLow', String(band.phLow));
    put('phHigh', String(band.phHigh));
    put('source', `${PRACTICE_SOURCE}: ${band.crop}`);
  };
  return (
    <FormProvider {...form}>
      <LockedForm value={data.sealed}>
        <form onSubmit={onSubmit} noValidate style={{ maxWidth: '58rem' }}>
          <UnsavedGuard busy={busy} />
          <SealedBanner trialId={id} sealedAt={state.seal?.at ?? null} />
          <StaleNote stale={stale} conflicts={conflicts} />
          <div className="fields">
            {needed.inWater && (
              <>
                <div className="w6">
                  <Choice
                    name="mixing.regimen"
                    label="Regimen"
                    options={regimens.map((r) => [r, regimenNames[r]] as const)}
                    helperText="both are schools of practice; readings are never forced"
                  />
                </div>
                <div className="w6">
                  <Choice
                    name="mixing.inOwnTank"
                    label="Mixed in"
                    options={[
                      [
                        'unsaid',
                        `as it follows: ${mixedInUnits(unsaid) ? `each ${plan.unitNoun}’s own tank` : 'a batch that is handed out'}`,
                      ],
                      ['batch', 'a batch that is handed out, with some to spare'],
                      ['tank', `each ${plan.unitNoun}’s own tank, with nothing to spare`],
                    ]}
                  />
                </div>
                <div className="w3">
                  <Field
                    name="mixing.sparePercent"
                    label="To spare"
                    suffix="%"
                    numeric
                    helperText="beyond what the units need"
                  />
                </div>
                <div className="w3">
                  <Field
                    name="mixing.vesselL"
                    label="Largest vessel"
                    suffix="L"
                    numeric
                    helperText="bounds the bigger batch"
                  />
                </div>
              </>
            )}
            {(needed.dry || needed.inWater) && (
              <div className="w3">
                <Field
                  name="scaleStepG"
                  label="The scale shows steps of"
                  suffix="g"
                  numeric
                  helperText="1 on most kitchen scales"
                />
              </div>
            )}
            {(needed.liquid || needed.inWater) && (
              <div className="w3">
                <Field
                  name="mixing.liquidStepMl"
                  label="Syringe or cylinder steps"
                  suffix="mL"
                  numeric
                  helperText="empty: taken as exact"
                />
              </div>
            )}
            <div className="w6">
              <Field
                name="mixing.exchange"
                label={`Rates of exchange: so many ${plan.currency} for one`}
                placeholder="USD 0.92, GBP 1.17"
                helperText="as you paid; for packs bought in another currency"
              />
            </div>
          </div>
          {needed.inWater && (
            <>
              <section className="section">
                <h2>Source water</h2>
                <p className="quiet">
                  From the water supplier’s report, or read with the meter. Left empty, it counts as pure
                  water.
                </p>
                <div className="fields">
                  <div className="w2">
                    <Field name="mixing.water.ec" label="EC (strength)" suffix="mS/cm" numeric />
                  </div>
                  <div className="w2">
                    <Field name="mixing.water.ph" label="pH" numeric />
                  </div>
                  <div className="w6">
                    <Field
                      name="mixing.water.elementsMgPerL"
                      label="Elements, mg/L"
                      placeholder="Ca 40, Mg 8, Na 12, Cl 20, S 10"
                      helperText="nitrate as N, sulfate as S"
                    />
                  </div>
                  <div className="w2">
                    <Field name="mixing.water.bicarbonateMgPerL" label="HCO₃⁻" suffix="mg/L" numeric />
                  </div>
                </div>
              </section>
              <section className="section">
                <h2>The band solutions are kept in</h2>
                <p className="quiet">
                  Your own, or one that growers use. Palazzo says when a reading leaves it; it never corrects
                  by itself.
                </p>
                <div className="fields">
                  {(
                    [
                      ['ecLow', 'EC (strength) from', 'mS/cm'],
                      ['ecHigh', 'to', 'mS/cm'],
                      ['phLow', 'pH from', ''],
                      ['phHigh', 'to', ''],
                    ] as const
                  ).map(([name, label, suffix]) => (
                    <div className="w2" key={name}>
                      <Field name={`mixing.band.${name}`} label={label} suffix={suffix} numeric />
                    </div>
                  ))}
                  <div className="w4">
                    <Field name="mixing.band.source" label="Where the band comes from" />
                  </div>
                </div>
                {!data.sealed && (
                  <div className="inline-row" style={{ marginTop: '0.7rem' }}>
                    <span className="small quiet">Common practice:</span>
                    {practiceBands.map((b) => (
                      <Button key={b.crop} size="small" color="secondary" onClick={() => usual(b)}>
                        {b.crop}
                      </Button>
                    ))}
                  </div>
                )}
              </section>
            </>
          )}
          {!data.sealed && (
            <div className="save-bar">
              <Button type="submit" variant="contained" disabled={busy}>
                Save the set-up
              </Button>
            </div>
          )}
        </form>
      </LockedForm>
    </FormProvider>
  );
}

import Button from '@mui/material/Button';
import { useMemo, useState } from 'react';
import { FormProvider, useFieldArray, useWatch } from 'react-hook-form';
import { Link, useLoaderData } from 'react-router';
import { type Matching, matchingNames, matchings } from '~core/model/plan';
import { gallonSystems, spoonSystems, systemNames } from '~core/quantity/units';
import { Choice, LockedForm, Tick } from '../../form/fields';
import { SizesChoice } from '../../form/SizesChoice';
import { StaleNote } from '../../form/StaleNote';
import { UnsavedGuard } from '../../form/UnsavedGuard';
import { useOpenOne } from '../../form/useOpenOne';
import { useRecordForm } from '../../form/useRecordForm';
import { protocolOf } from '~core/schedule/protocols';
import { plantsIn } from '~core/schedule/protocols/protocol';
import { RoomHead } from '../../ui/RoomHead';
import { SealedBanner } from '../SealedBanner';
import { type ContendersData, contendersAction, loadContenders } from './contendersData';
import { FactorDialog } from './FactorDialog';
import { FactorTable } from './FactorTable';
import { SameTable } from './SameTable';
import { AlikeDoses } from './AlikeDoses';
import { ContenderRow } from './ContenderRow';
import { combinations, factorsOf } from './factorial';
import { contendersRecord } from './contendersForm';
import { copyOfTreatment, newTreatment } from './newContender';
import './contenders.css';
/** Each school of matching, and what it answers. */
const matchingNotes: Record<Matching, string> = {
  label: 'as a buyer would use it; the doses may differ',
  element: 'is it the product, or more nitrogen?',
  strength: 'is it the product, or a stronger solution?',
  money: 'what the same money buys',
  asIs: 'say in the review why',
};

export const clientLoader = loadContenders;
export const clientAction = contendersAction;

export default function ContendersRoom() {
  const data = useLoaderData<typeof clientLoader>();
  return <ContendersEditor key={data.id} {...data} />;
}

function ContendersEditor({ id, plan, products, blind, sealedAt }: ContendersData) {
  const formValues = useMemo(() => contendersRecord.shown(plan), [plan]);
  const { form, busy, stale, conflicts, onSubmit } = useRecordForm(formValues, {
    merges: contendersRecord.name,
  });
  const rows = useFieldArray({ control: form.control, name: 'treatments', keyName: 'key' });
  const matchedOn = useWatch({ control: form.control, name: 'matchedOn' });
  const [factors, setFactors] = useState(false);
  const locked = sealedAt !== null;
  const hasControl = rows.fields.some((r) => r.role !== 'test');
  const [open, setOpen] = useOpenOne(form.formState.errors.treatments, busy);
  const protocol = protocolOf(plan.protocolId);
  const add = (role: 'untreated' | 'base' | 'reference' | 'test') => {
    rows.append(
      newTreatment(role, form.getValues('treatments')[0], plan.crop, protocol && plantsIn(protocol)),
    );
    setOpen(role === 'untreated' ? null : rows.fields.length);
  };
  return (
    <FormProvider {...form}>
      <LockedForm value={locked}>
        <form onSubmit={onSubmit} noValidate style={{ maxWidth: '70rem' }}>
          <UnsavedGuard busy={busy} />
          <RoomHead title="Contenders">
            What is compared with what. Without a control nobody sees that a product did worse than nothing.
          </RoomHead>
          <SealedBanner trialId={id} sealedAt={sealedAt} />
          <StaleNote stale={stale} conflicts={conflicts} />
          {blind && (
            <p className="note open" style={{ marginBottom: '1rem' }}>
              The trial is blind: which code each contender has isn’t shown here.
            </p>
          )}
          {rows.fields.length === 0 && (
            <div className="empty">
              <h2>No contenders yet</h2>
              <p>
                Begin with the control: water only, or the base feed alone when an additive is tested. Then
                one contender for each product, with its dose. Everything else stays the same for all.
              </p>
            </div>
          )}
          <FactorTable blind={blind} />
          <AlikeDoses {...{ products, locked }} unitNoun={plan.unitNoun} />
          {rows.fields.length > 0 && (
            <div className="contender-line contender-head small quiet" aria-hidden="true">
              <span />
              <span>contender</span>
              <span className="contender-use">
                <span>what</span>
                <span>how much</span>
                <span>when</span>
              </span>
              <span className="n">a dose</span>
              <span className="n">per {plan.unitNoun}</span>
              <span />
            </div>
          )}
          {rows.fields.map((f, i) => (
            <ContenderRow
              key={f.key}
              index={i}
              {...{ products, locked, blind }}
              home={plan}
              unitNoun={plan.unitNoun}
              open={i === open}
              onOpen={(on) => setOpen(on ? i : null)}
              remove={() => {
                rows.remove(i);
                setOpen(null);
              }}
              copy={() => {
                rows.insert(i + 1, copyOfTreatment(form.getValues(`treatments.${i}`)));
                setOpen(i + 1);
              }}
            />
          ))}
          {!locked && (
            <div className="inline-row" style={{ marginTop: '1rem' }}>
              {!hasControl && (
                <Button variant="outlined" color="secondary" onClick={() => add('untreated')}>
                  Add an untreated control
                </Button>
              )}
              <Button variant="outlined" color="secondary" onClick={() => add('test')}>
                Add a contender
              </Button>
              <Button color="secondary" onClick={() => add('reference')}>
                Add a reference
              </Button>
              <Button color="secondary" onClick={() => add('base')}>
                Add a base control
              </Button>
              <Button color="secondary" onClick={() => setFactors(true)}>
                From factors …
              </Button>
              {products.length === 0 && (
                <span className="small">
                  The library is empty: <Link to="/library/new">add the products first</Link>.
                </span>
              )}
            </div>
          )}
          {rows.fields.length > 0 && (
            <section className="section">
              <h2>The same everything else</h2>
              <p className="quiet">
                Readers look here first. One seed lot, one bag, one light; what differs is marked.
              </p>
              <SameTable unitNoun={plan.unitNoun} locked={locked} blind={blind} />
            </section>
          )}
          {rows.fields.length > 0 && (
            <details className="section">
              <summary>How doses are matched, and in which measures</summary>
              <div className="fields" style={{ marginBottom: '1rem' }}>
                <div className="w3">
                  <Choice
                    name="matchedOn"
                    label="Doses are matched on"
                    options={matchings.map((m) => [m, matchingNames[m]] as const)}
                    helperText={matchingNotes[matchedOn]}
                  />
                </div>
                <div className="w2">
                  <Choice
                    name="mixing.measures.spoon"
                    label="Spoons are"
                    options={spoonSystems.map((s) => [s, systemNames[s]] as const)}
                  />
                </div>
                <div className="w2">
                  <Choice
                    name="mixing.measures.gallon"
                    label="Gallons are"
                    options={gallonSystems.map((s) => [s, systemNames[s]] as const)}
                  />
                </div>
                <div className="w2">
                  <SizesChoice />
                </div>
                <div className="w12">
                  <Tick name="wholeSystem" label="Whole systems are compared, and the review says so" />
                  <Tick name="peers" label="Equals are compared: none is a control" />
                </div>
              </div>
            </details>
          )}
          {factors && (
            <FactorDialog
              products={products}
              onClose={() => setFactors(false)}
              onMake={(made) => {
                for (const t of combinations(made, form.getValues('treatments')[0])) rows.append(t);
                form.setValue('factors', factorsOf(made), { shouldDirty: true });
                setFactors(false);
              }}
            />
          )}
          {!locked && (
            <div className="save-bar">
              <Button type="submit" variant="contained" disabled={busy}>
                Save the contenders
              </Button>
              {form.formState.isDirty && <span className="small quiet">Not saved yet</span>}
            </div>
          )}
        </form>
      </LockedForm>
    </FormProvider>
  );
}

import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { useMemo } from 'react';
import { Controller, FormProvider, useFieldArray, useWatch } from 'react-hook-form';
import { Link, useLoaderData } from 'react-router';
import { countWord, formatFigure, sentenceCase } from '~core/quantity/format';
import { formatMoney } from '~core/quantity/money';
import { NOTHING } from '~core/standings/overTrials';
import { Choice, Field, GroupError, Tick, WhenField } from '../../form/fields';
import { usePost } from '../../form/usePost';
import { useRecordForm } from '../../form/useRecordForm';
import { shortDate } from '../../ui/clock';
import { RoomHead } from '../../ui/RoomHead';
import { type Offered, type SeasonData, loadSeason } from './seasonData';
import { seasonAction } from './seasonActions';
import { goals } from './seasonForm';
import './season.css';

export const clientLoader = loadSeason;
export const clientAction = seasonAction;

/** What to test next: which trials, in which order, with whom side by side, for what they teach. */
export default function Season() {
  const data = useLoaderData<typeof clientLoader>();
  const { offered, nothing, typed, names } = data;
  if (names.length === 0) {
    return (
      <div className="empty">
        <h1>Season</h1>
        <p>
          Which trials would teach most in the weeks, places and money there are. It takes products in the
          library, or trials of them.
        </p>
        <Link to="/library/new">Add a product</Link>
      </div>
    );
  }
  const last = offered.at(-1);
  return (
    <>
      <RoomHead title={last ? sayOutlook(offered, typed.goal === 'best') : 'Season: what to test next'}>
        {data.trials === 0
          ? 'No finished trial tells of these products yet: proposals go by what products usually differ by.'
          : `By what ${countWord(data.trials)} finished ${data.trials === 1 ? 'trial tells' : 'trials tell'}. Each trial that ends moves what is proposed here.`}
      </RoomHead>
      <div className="season">
        <WishesForm {...data} />
        <div>
          {nothing && <p className="note open">{nothing}</p>}
          {offered.map((p, i) => (
            <Offer
              key={`${p.slot.area} ${p.slot.startDate}`}
              nth={i + 1}
              offer={p}
              best={typed.goal === 'best'}
              solution={typed.solution}
              first={i === firstOpen(offered)}
            />
          ))}
          {offered.length > 0 && (
            <p className="small quiet">
              Each trial holds the contenders that leave the least variance in the differences that matter,
              found by adding, dropping and exchanging them one at a time. Units differ by{' '}
              {formatFigure(data.cv.percent, 0)} %
              {data.cv.seen ? ', as in the trials so far' : ' (practice: no trial has shown it yet)'};
              products differ by about 12 % where nothing is known, and by 5 % from trial to trial until three
              trials show it (both practice).
            </p>
          )}
        </div>
      </div>
    </>
  );
}

const firstOpen = (all: readonly Offered[]) => all.findIndex((p) => p.madeId === null);

/** What the season as a whole comes to. */
function sayOutlook(all: readonly Offered[], best: boolean): string {
  const [first, last] = [all[0]!, all.at(-1)!];
  const n = `${sentenceCase(countWord(all.length))} ${all.length === 1 ? 'trial' : 'trials'}`;
  return best
    ? `${n}: the best named rightly in ${hundred(last.sure.after)} of 100 such seasons, ${hundred(first.sure.before)} without ${all.length === 1 ? 'it' : 'them'}.`
    : `${n}, each for what is left to learn.`;
}

const hundred = (share: number) => Math.round(100 * share);

/** A trial as it is proposed: who stands beside whom, where and when, what it costs, why. */
function Offer({
  nth,
  offer: p,
  best,
  solution,
  first,
}: {
  nth: number;
  offer: Offered;
  best: boolean;
  solution: string;
  first: boolean;
}) {
  const post = usePost();
  const units = p.each * p.arms.length;
  return (
    <article className="offer">
      <h2>
        {nth}. {p.arms.join(', ')}
      </h2>
      <p>{p.why}</p>
      <dl className="small">
        <dt className="quiet">where and when</dt>
        <dd>
          {p.slot.area}, {shortDate(p.slot.startDate)} to {shortDate(p.slot.endDate)}
        </dd>
        <dt className="quiet">how many</dt>
        <dd>
          {p.each} of each, {units} in all
        </dd>
        <dt className="quiet">products cost</dt>
        <dd>
          {p.cost
            ? `about ${formatMoney(p.cost)}`
            : 'not known: some of them stood in no trial with a dose and a price'}
          {p.overBudget && <strong> · more than there is, with those before it</strong>}
        </dd>
        {best && (
          <>
            <dt className="quiet">the best named rightly</dt>
            <dd>
              {hundred(p.sure.before)} of 100 before, {hundred(p.sure.after)} after
            </dd>
          </>
        )}
      </dl>
      {p.madeId ? (
        <Link to={`/trial/${p.madeId}/contenders`}>It is planned: open it</Link>
      ) : (
        <Button
          variant={first ? 'contained' : 'outlined'}
          color={first ? 'primary' : 'secondary'}
          onClick={() =>
            post({
              ...{ intent: 'make', arms: p.arms, each: p.each, startDate: p.slot.startDate },
              ...{ crop: p.crop, solution },
            })
          }
          aria-label={`Plan this trial, number ${nth}: ${p.arms.join(', ')}`}
        >
          Plan this trial
        </Button>
      )}
    </article>
  );
}

/** What one wants to know, and what there is to find it out with. */
function WishesForm({ typed, names, currency }: SeasonData) {
  const defaults = useMemo(() => ({ ...typed, intent: 'wishes' as const }), [typed]);
  const { form, busy, onSubmit } = useRecordForm(defaults, { saved: 'Proposed anew.' });
  const goal = useWatch({ control: form.control, name: 'goal' });
  const areas = useFieldArray({ control: form.control, name: 'areas', keyName: 'key' });
  const named = [['', 'choose'], ...names.map((n) => [n, n] as const)] as const;
  const withNothing = [...named, [NOTHING, NOTHING] as const];
  return (
    <FormProvider {...form}>
      <form onSubmit={onSubmit} noValidate className="stack" aria-label="What the season is for">
        <Choice name="goal" label="I want to know" options={Object.entries(goals)} />
        {goal === 'pair' && (
          <>
            <Choice name="a" label="Is" options={named} />
            <Choice name="b" label="worth it against" options={withNothing} />
          </>
        )}
        {goal === 'crop' && <Choice name="a" label="Does" options={named} />}
        <Field name="crop" label={goal === 'crop' ? 'hold on' : 'Crop'} />
        {goal !== 'crop' && (
          <fieldset className="plain">
            <legend className="small quiet">
              {goal === 'pair' ? 'Others that may stand between' : 'Of these'}
            </legend>
            <Controller
              control={form.control}
              name="products"
              render={({ field }) => (
                <>
                  {names.map((n) => (
                    <FormControlLabel
                      key={n}
                      label={n}
                      sx={{ display: 'flex' }}
                      control={
                        <Checkbox
                          size="small"
                          color="secondary"
                          checked={field.value.includes(n)}
                          onChange={(_, on) =>
                            field.onChange(on ? [...field.value, n] : field.value.filter((x) => x !== n))
                          }
                        />
                      }
                    />
                  ))}
                </>
              )}
            />
            <GroupError name="products" />
            <Tick name="withNothing" label="an untreated control may stand beside them" />
          </fieldset>
        )}
        <fieldset className="plain">
          <legend className="small quiet">Where, and how many fit</legend>
          <div className="stack tight">
            {areas.fields.map((f, i) => (
              <div className="season-area" key={f.key}>
                <Field name={`areas.${i}.name`} label="Area" size="small" />
                <Field name={`areas.${i}.places`} label="units" numeric size="small" />
                {areas.fields.length > 1 && (
                  <Button
                    size="small"
                    color="inherit"
                    onClick={() => areas.remove(i)}
                    aria-label={`Remove area ${i + 1}`}
                  >
                    Remove
                  </Button>
                )}
              </div>
            ))}
            <Button
              size="small"
              color="secondary"
              sx={{ alignSelf: 'start' }}
              onClick={() => areas.append({ name: '', places: '' })}
            >
              Another area
            </Button>
          </div>
        </fieldset>
        <WhenField name="startDate" label="From" />
        <div className="fields figures">
          <Field name="weeks" label="The season has" suffix="weeks" numeric />
          <Field name="trialWeeks" label="A trial takes" suffix="weeks" numeric />
          <Field name="arms" label="Contenders at most" numeric />
          <Field name="hands" label="Units one can tend" numeric helperText="at once; empty: all that fit" />
          <Field
            name="budget"
            label="Money for products"
            suffix={currency}
            numeric
            helperText="empty: no limit"
          />
          <Field
            name="solution"
            label="Feed for each at a time"
            helperText="0.5 L; where it is given in water"
            figures
          />
        </div>
        <Button type="submit" variant="outlined" color="secondary" disabled={busy}>
          What would teach most?
        </Button>
        {form.formState.errors.root && <GroupError name="root" />}
      </form>
    </FormProvider>
  );
}

import { OpenButton } from '../../ui/OpenButton';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import { useController, useFormContext, useWatch } from 'react-hook-form';
import { type QuestionFormInput, isLength } from './questionForm';
import { type TraitKind, kindOf, pers, traitKinds } from '~core/model/plan';
import { divisorNames } from '~core/plan/divisor';
import { Choice, Field, Tick } from '../../form/fields';

interface Props {
  index: number;
  remove: () => void;
  locked: boolean;
  open: boolean;
  onOpen: (open: boolean) => void;
}

const betterWords: Record<string, string> = {
  higher: 'more is better',
  lower: 'less is better',
  band: 'inside a band is better',
};

const kindChoices = Object.entries(traitKinds).map(([kind, { name }]) => [kind, name] as const);

/** One trait as a line of the table, with the rounds in which it is taken; opened: how, which way is better, what is plausible. */
export function TraitRow({ index, remove, locked, open, onOpen }: Props) {
  const at = (name: string) => `traits.${index}.${name}`;
  const trait = useWatch({ name: `traits.${index}` }) as
    | { id: string; direction: string; kind: TraitKind; name: string; unit: string }
    | undefined;
  // The one that decides; all others are exploratory.
  const decides = (useWatch({ name: 'primaryTraitId' }) as string) === trait?.id;
  const unitNoun = (useWatch({ name: 'unitNoun' }) as string) || 'unit';
  const crops = ((useWatch({ name: 'cropsWithin' }) as string) ?? '').trim();
  const { fields } = kindOf({ kind: trait?.kind ?? 'number' });
  const asks = (field: (typeof fields)[number]) => fields.includes(field);
  const called = trait?.name || `trait ${index + 1}`;
  const rounds = useWatch({ name: 'rounds' }) as QuestionFormInput['rounds'];
  return (
    <>
      <tr className={`trait${decides ? ' decides' : ''}${open ? ' open' : ''}`}>
        <th scope="row">
          <strong>{called}</strong>{' '}
          <span className="small quiet">
            {[
              trait?.unit,
              traitKinds[trait?.kind ?? 'number'].name,
              asks('direction') ? betterWords[trait?.direction ?? ''] : null,
              decides ? null : 'looked at beside it',
            ]
              .filter(Boolean)
              .join(' · ')}
            {decides && (
              <>
                {' '}
                · <strong>decides</strong>
              </>
            )}
          </span>
        </th>
        {rounds.map((r, i) => (
          <td key={r.id} data-label={`d ${r.day}`}>
            <Taken
              round={i}
              traitId={trait?.id ?? ''}
              label={`${called}, ${r.name || `round ${i + 1}`}`}
              locked={locked}
            />
          </td>
        ))}
        <td className="n">
          <OpenButton {...{ called, open, onOpen }} />
        </td>
      </tr>
      {open && (
        <tr className={`trait open${decides ? ' decides' : ''}`}>
          <td colSpan={rounds.length + 2}>
            <div className="fields">
              <div className="w3">
                <Field
                  name={at('name')}
                  label="Trait"
                  helperText={decides ? 'decides the trial' : 'exploratory'}
                />
              </div>
              <div className="w2">
                <Field name={at('unit')} label="Unit" disabled={!asks('direction')} />
              </div>
              <div className="w3">
                <Choice name={at('kind')} label="Taken as" options={kindChoices} />
              </div>
              <div className="w2">
                {asks('direction') && (
                  <Choice
                    name={at('direction')}
                    label="Better is"
                    options={[
                      ['higher', 'higher'],
                      ['lower', 'lower'],
                      ['band', 'inside a band'],
                    ]}
                  />
                )}
              </div>
              <div className="w2" style={{ textAlign: 'right' }}>
                {!locked && (
                  <Button
                    color="inherit"
                    onClick={remove}
                    aria-label={`Remove ${trait?.name || 'this trait'}`}
                  >
                    Remove
                  </Button>
                )}
              </div>
              {trait?.direction === 'band' && asks('direction') && (
                <>
                  <div className="w2">
                    <Field name={at('bandLow')} label="Band from" numeric />
                  </div>
                  <div className="w2">
                    <Field name={at('bandHigh')} label="to" numeric />
                  </div>
                </>
              )}
              {asks('outOf') && (
                <div className="w2">
                  <Field name={at('outOf')} label="Out of" numeric />
                </div>
              )}
              {asks('plausible') && (
                <>
                  <div className="w2">
                    <Field name={at('plausibleLow')} label="Least expected" numeric />
                  </div>
                  <div className="w2">
                    <Field name={at('plausibleHigh')} label="Most expected" numeric />
                  </div>
                </>
              )}
              {asks('decimals') && (
                <div className="w2">
                  <Field name={at('decimals')} label="Decimals" numeric />
                </div>
              )}
              {asks('samples') && (
                <div className="w2">
                  <Field name={at('samplesPerUnit')} label="Samples per unit" numeric />
                </div>
              )}
              {asks('summary') && (
                <div className="w3">
                  <Choice
                    name={at('summary')}
                    label="Several rounds give"
                    options={[
                      ['last', 'the last value'],
                      ['sum', 'the sum of all picks'],
                      ['gain', 'how much it grew: last less first'],
                      ['area', 'their mean over time'],
                      ['growth', 'growth, % a day'],
                    ]}
                  />
                </div>
              )}
              {asks('per') && (
                <div className="w3">
                  <Choice
                    name={at('per')}
                    label="Compared per"
                    options={[['unit', unitNoun], ...pers.map((p) => [p, divisorNames[p]] as const)]}
                  />
                </div>
              )}
              {asks('constant') && (
                <div className="w3">
                  <Field
                    name={at('constantPercent')}
                    label="Constant under"
                    suffix="%"
                    numeric
                    helperText="change between two weighings; left empty 1"
                  />
                </div>
              )}
              {asks('countsAs') && (
                <div className="w12">
                  <Field
                    name={at('countsAs')}
                    label="What counts, and what doesn’t"
                    helperText="shown while counting, e.g. “root tips of 5 mm or more; callus alone doesn’t”"
                  />
                </div>
              )}
              {asks('withinBlocks') && (
                <div className="w12">
                  <Tick
                    name={at('withinBlocks')}
                    label="Ranked block by block, where the layout has blocks"
                  />
                </div>
              )}
              {asks('direction') && (
                <div className="w12 inline-row">
                  {asks('halves') && <Tick name={at('halfSteps')} label="In half steps" />}
                  {asks('plausible') && (
                    <Tick name={at('deadIsZero')} label={`A dead ${unitNoun} counts as 0`} />
                  )}
                  {isLength(trait?.unit ?? '') && <Tick name={at('role')} label="How tall the plants are" />}
                  <Tick name={at('evenDead')} label="Can be taken though the plant has died" />
                  {crops !== '' && (
                    <Tick name={at('wholeUnit')} label={`Of the whole ${unitNoun}, not of each crop`} />
                  )}
                </div>
              )}
              {asks('scale') && (
                <div className="w12">
                  <Field
                    name={at('scale')}
                    label="Written scale: what has to be seen for each step"
                    multiline
                    minRows={4}
                    helperText="one step a line, worst first; a figure in front, or it counts from 1. The ends are enough: “1 worst”, “10 best”, or just 1–10"
                  />
                </div>
              )}
            </div>
          </td>
        </tr>
      )}
    </>
  );
}

/** Whether a trait is taken in a round. */
function Taken({
  round,
  traitId,
  label,
  locked,
}: {
  round: number;
  traitId: string;
  label: string;
  locked: boolean;
}) {
  const { control } = useFormContext<QuestionFormInput>();
  const { field } = useController({ control, name: `rounds.${round}.traitIds` });
  const chosen = field.value ?? [];
  if (locked)
    return chosen.includes(traitId) ? (
      <span role="img" aria-label={label}>
        ✓
      </span>
    ) : null;
  return (
    <Checkbox
      size="small"
      color="secondary"
      checked={chosen.includes(traitId)}
      onChange={(_, on) => field.onChange(on ? [...chosen, traitId] : chosen.filter((x) => x !== traitId))}
      slotProps={{ input: { 'aria-label': label } }}
    />
  );
}

import { memo } from 'react';
import Button from '@mui/material/Button';
import { useFieldArray, useFormContext } from 'react-hook-form';
import { kindOf } from '~core/model/plan';
import { gradeUses, usualGrades } from '~core/model/grade';
import { colourScale } from '~core/schedule/protocols/colours';
import { Choice, Field } from '../../form/fields';
import { useOpenOne } from '../../form/useOpenOne';
import { RoundHeads } from './RoundHeads';
import { TraitRow } from './TraitRow';
import { newTrait, stepsOf } from './newRows';
import type { QuestionFormInput } from './questionForm';

/** What is measured and when: traits down, one of which decides, rounds across. */
export const TraitsSection = memo(function TraitsSection({
  locked,
  busy,
}: {
  locked: boolean;
  busy: boolean;
}) {
  const { control, getValues, formState } = useFormContext<QuestionFormInput>();
  const [open, setOpen] = useOpenOne(formState.errors.traits, busy);
  const traits = useFieldArray({ control, name: 'traits', keyName: 'key' });
  const grades = useFieldArray({ control, name: 'grades', keyName: 'key' });
  const picked = traits.fields.some((f) => kindOf(f).takenBy === 'picks');
  const addColour = () => {
    traits.append(newTrait('score', { name: 'Colour', scale: stepsOf(colourScale(getValues('crop'))) }));
  };
  const addPicks = () => {
    traits.append((['picks', 'pickShare', 'pickFirst'] as const).map((t) => newTrait(t)));
    if (grades.fields.length === 0) grades.append(usualGrades(getValues('crop')));
  };
  return (
    <section className="section" aria-label="What is measured, and when">
      <div>
        <div className="scroll-x">
          <table className="measured">
            <RoundHeads traits={traits.fields} locked={locked} busy={busy} />
            <tbody>
              {traits.fields.map((f, i) => (
                <TraitRow
                  key={f.key}
                  index={i}
                  locked={locked}
                  open={i === open}
                  onOpen={(on) => setOpen(on ? i : null)}
                  remove={() => {
                    traits.remove(i);
                    setOpen(null);
                  }}
                />
              ))}
            </tbody>
          </table>
        </div>
        {!locked && (
          <div className="inline-row" style={{ marginTop: '0.6rem', gap: '0.3rem' }}>
            <Button size="small" color="secondary" onClick={() => traits.append(newTrait('weight'))}>
              Add a weight
            </Button>
            <Button size="small" color="secondary" onClick={() => traits.append(newTrait('height'))}>
              Add a height
            </Button>
            <Button
              size="small"
              color="secondary"
              onClick={() => {
                // Of what, nobody knows but who counts.
                traits.append(newTrait('count'));
                setOpen(traits.fields.length);
              }}
            >
              Add a count
            </Button>
            <Button size="small" color="secondary" onClick={() => traits.append(newTrait('ratio'))}>
              Add k of n
            </Button>
            <Button
              size="small"
              color="secondary"
              onClick={() =>
                // without another trait's scale in it
                traits.append(
                  newTrait('score', traits.fields.some((f) => f.kind === 'score') ? { scale: [] } : {}),
                )
              }
            >
              Add a score
            </Button>
            <Button size="small" color="secondary" onClick={addColour}>
              Add a colour
            </Button>
            <Button size="small" color="secondary" onClick={addPicks}>
              Add picks
            </Button>
            <Button
              size="small"
              color="secondary"
              onClick={() => {
                traits.append(newTrait('blank'));
                setOpen(traits.fields.length);
              }}
            >
              Another trait
            </Button>
          </div>
        )}
      </div>
      {picked && (
        <fieldset className="plain" style={{ marginTop: '1rem' }}>
          <legend>
            <h3>What picked fruit is sorted into</h3>
          </legend>
          <div className="stack tight">
            {grades.fields.map((g, i) => (
              <div className="inline-row" key={g.key}>
                <Field name={`grades.${i}.name`} label={`Grade ${i + 1}`} size="small" sx={{ width: 240 }} />
                <Choice
                  name={`grades.${i}.use`}
                  label="As yield"
                  size="small"
                  sx={{ width: 290 }}
                  options={Object.entries(gradeUses)}
                />
                {!locked && (
                  <Button
                    size="small"
                    color="inherit"
                    onClick={() => grades.remove(i)}
                    aria-label={`Remove grade ${g.name}`}
                  >
                    Remove
                  </Button>
                )}
              </div>
            ))}
            {!locked && (
              <Button
                size="small"
                color="secondary"
                sx={{ alignSelf: 'start' }}
                onClick={() => grades.append({ name: '', use: 'no' })}
              >
                Another grade
              </Button>
            )}
          </div>
        </fieldset>
      )}
    </section>
  );
});

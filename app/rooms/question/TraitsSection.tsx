import Button from '@mui/material/Button';
import { useFieldArray, useFormContext } from 'react-hook-form';
import { TraitRow } from './TraitRow';
import { type QuestionFormInput, newTrait } from './questionForm';

/** What is measured: the traits, one of which decides. */
export function TraitsSection({ locked }: { locked: boolean }) {
  const { control } = useFormContext<QuestionFormInput>();
  const traits = useFieldArray({ control, name: 'traits', keyName: 'key' });
  return (
    <section className="section">
      <h2>What is measured</h2>
      <p className="quiet">
        One trait decides; the others are looked at beside it. Weighed traits go through Weigh-in, the rest
        through Rounds.
      </p>
      <div className="stack">
        {traits.fields.map((f, i) => (
          <TraitRow key={f.key} index={i} remove={() => traits.remove(i)} locked={locked} />
        ))}
        {!locked && (
          <div className="inline-row">
            <Button variant="outlined" color="secondary" onClick={() => traits.append(newTrait('weight'))}>
              Add a weight
            </Button>
            <Button variant="outlined" color="secondary" onClick={() => traits.append(newTrait('height'))}>
              Add a height
            </Button>
            <Button variant="outlined" color="secondary" onClick={() => traits.append(newTrait('count'))}>
              Add a count
            </Button>
            <Button variant="outlined" color="secondary" onClick={() => traits.append(newTrait('ratio'))}>
              Add k of n
            </Button>
            <Button
              variant="outlined"
              color="secondary"
              onClick={() =>
                traits.append(
                  newTrait(
                    'score',
                    traits.fields.some((f) => f.kind === 'score'),
                  ),
                )
              }
            >
              Add a score
            </Button>
            <Button color="secondary" onClick={() => traits.append(newTrait('blank'))}>
              Another trait
            </Button>
          </div>
        )}
      </div>
    </section>
  );
}

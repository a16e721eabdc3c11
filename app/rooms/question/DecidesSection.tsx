import { memo } from 'react';
import { Choice, Field } from '../../form/fields';
import { useNamedTraits } from './useNamedTraits';
import { useWatch } from 'react-hook-form';

/** What decides: the trait, the difference that matters, the spread that is reckoned with. */
export const DecidesSection = memo(function DecidesSection() {
  const named = useNamedTraits();
  const primaryTraitId = useWatch({ name: 'primaryTraitId' }) as string;
  const unitNoun = (useWatch({ name: 'unitNoun' }) as string) || 'unit';
  const primary = named.find((t) => t.id === primaryTraitId);
  return (
    <section className="section">
      <h2 style={{ marginBottom: '0.9rem' }}>What decides</h2>
      <div className="fields">
        <div className="w3">
          <Choice
            name="primaryTraitId"
            label="Deciding trait"
            options={[['', 'not chosen yet'], ...named.map((t) => [t.id, t.name || 'unnamed'] as const)]}
          />
        </div>
        <div className="w2">
          <Field
            name="differenceValue"
            label="Smallest that matters"
            numeric
            helperText="what a reader would pay or change for"
          />
        </div>
        <div className="w3">
          <Choice
            name="differenceKind"
            label="in"
            options={[
              ['percent', '% of the control'],
              ['absolute', primary?.unit || 'its own unit'],
            ]}
          />
        </div>
        <div className="w2">
          <Field name="currency" label="Currency" />
        </div>
        <div className="w2">
          <Field
            name="cvPercent"
            label={`Spread from ${unitNoun} to ${unitNoun}`}
            numeric
            suffix="%"
            helperText="for How many, in Rehearsal"
          />
        </div>
      </div>
    </section>
  );
});

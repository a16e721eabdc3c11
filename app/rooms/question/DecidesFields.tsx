import { memo } from 'react';
import { Choice, Field } from '../../form/fields';
import { useNamedTraits } from './useNamedTraits';
import { useWatch } from 'react-hook-form';

/**
 * What decides: the trait, the difference that matters, the spread that is reckoned with.
 * @param ofAll what per cents are of
 */
export const DecidesFields = memo(function DecidesFields({ ofAll }: { ofAll: string }) {
  const named = useNamedTraits();
  const primaryTraitId = useWatch({ name: 'primaryTraitId' }) as string;
  const primary = named.find((t) => t.id === primaryTraitId);
  return (
    <>
      <div className="w3">
        <Choice
          name="primaryTraitId"
          label="Deciding trait"
          options={[['', 'not chosen yet'], ...named.map((t) => [t.id, t.name || 'unnamed'] as const)]}
        />
      </div>
      <div className="w3">
        <Field
          name="smallestDifference.value"
          label="Smallest that matters"
          numeric
          helperText="what a reader would change for"
        />
      </div>
      <div className="w2">
        <Choice
          name="smallestDifference.kind"
          label="in"
          options={[
            ['percent', ofAll],
            ['absolute', primary?.unit || 'its own unit'],
          ]}
        />
      </div>
      <div className="w2">
        <Field name="cvPercent" label="Usual spread" numeric suffix="%" helperText="from unit to unit" />
      </div>
      <div className="w2">
        <Field name="code" label="Code" />
      </div>
    </>
  );
});

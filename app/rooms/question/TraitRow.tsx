import Button from '@mui/material/Button';
import { useWatch } from 'react-hook-form';
import { Choice, Field } from '../../form/fields';

/** One trait of the question: what, in which unit, which way is better, what is plausible. */
export function TraitRow({ index, remove, locked }: { index: number; remove: () => void; locked: boolean }) {
  const at = (name: string) => `traits.${index}.${name}`;
  const trait = useWatch({ name: `traits.${index}` }) as
    { direction: string; kind: string; name: string } | undefined;
  return (
    <div className="sheet">
      <div className="fields">
        <div className="w3">
          <Field name={at('name')} label="Trait" />
        </div>
        <div className="w2">
          <Field name={at('unit')} label="Unit" />
        </div>
        <div className="w2">
          <Choice
            name={at('kind')}
            label="Taken as"
            options={[
              ['number', 'number'],
              ['count', 'count'],
              ['weighing', 'weighing'],
            ]}
          />
        </div>
        <div className="w3">
          <Choice
            name={at('direction')}
            label="Better is"
            options={[
              ['higher', 'higher'],
              ['lower', 'lower'],
              ['band', 'inside a band'],
            ]}
          />
        </div>
        <div className="w2" style={{ textAlign: 'right' }}>
          {!locked && (
            <Button color="inherit" onClick={remove} aria-label={`Remove ${trait?.name || 'this trait'}`}>
              Remove
            </Button>
          )}
        </div>
        {trait?.direction === 'band' && (
          <>
            <div className="w2">
              <Field name={at('bandLow')} label="Band from" numeric />
            </div>
            <div className="w2">
              <Field name={at('bandHigh')} label="to" numeric />
            </div>
          </>
        )}
        <div className="w2">
          <Field name={at('plausibleLow')} label="Least expected" numeric />
        </div>
        <div className="w2">
          <Field name={at('plausibleHigh')} label="Most expected" numeric />
        </div>
        <div className="w2">
          <Field name={at('decimals')} label="Decimals" numeric />
        </div>
        {trait?.kind !== 'weighing' && (
          <div className="w2">
            <Field name={at('samplesPerUnit')} label="Samples per unit" numeric />
          </div>
        )}
        <div className="w3">
          <Choice
            name={at('summary')}
            label="Several rounds give"
            options={[
              ['last', 'the last value'],
              ['sum', 'the sum of all picks'],
            ]}
          />
        </div>
      </div>
    </div>
  );
}

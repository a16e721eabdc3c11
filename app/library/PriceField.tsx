import { useFormContext } from 'react-hook-form';
import { readSum } from '~core/quantity/money';
import { Field } from '../form/fields';

interface Props {
  name: string;
  /** of the currency beside it */
  currencyName: string;
  label: string;
  helperText?: string | undefined;
}

/** A price as people write it: “24 €” is 24 and its currency, each in its field. */
export function PriceField({ name, currencyName, ...rest }: Props) {
  const { getValues, setValue } = useFormContext();
  const apart = () => {
    const typed = String(getValues(name) ?? '');
    const sum = readSum(typed, String(getValues(currencyName) ?? ''));
    // A bare figure stays as it is typed; so does what isn't a price.
    if (!sum.ok || sum.value === null || sum.value.before !== '' || /^[\d.,\s]*$/.test(typed)) return;
    setValue(name, String(sum.value.amount), { shouldDirty: true });
    setValue(currencyName, sum.value.currency, { shouldDirty: true });
  };
  return <Field name={name} {...rest} numeric onBlur={apart} />;
}

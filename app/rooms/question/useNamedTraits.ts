import { useFormContext, useWatch } from 'react-hook-form';
import type { QuestionFormInput } from './questionForm';

/** The traits as they are typed now, by id, name and unit. */
export function useNamedTraits(): { id: string; name: string; unit: string }[] {
  const { control } = useFormContext<QuestionFormInput>();
  const traits = useWatch({ control, name: 'traits' });
  return (traits ?? []).map((t) => ({ id: t.id ?? '', name: t.name ?? '', unit: t.unit ?? '' }));
}

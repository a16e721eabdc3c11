import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { FormProvider } from 'react-hook-form';
import { z } from 'zod';
import { CardHeading } from '~core/model/judgement';
import { Field } from '../../form/fields';
import { fieldText, optionalNumber } from '../../form/schemaFields';
import { useTypedForm } from '../../form/useTypedForm';
import { DialogButtons } from '../../ui/DialogButtons';
import { EntryDialog } from '../../ui/EntryDialog';
import { TesseraName } from '../../ui/Tessera';

interface Props {
  heading: CardHeading;
  contenders: { id: string; name: string; order: number }[];
  onKeep: (over: Partial<CardHeading>) => void;
  onClose: () => void;
}

const Points = z.object({
  points: optionalNumber().pipe(z.number().min(0, 'From 0 to 10.').max(10, 'From 0 to 10.').nullable()),
  reason: z.string(),
});

const Typed = z
  .object({
    name: CardHeading.shape.name,
    zero: optionalNumber(),
    ten: optionalNumber(),
    points: z.record(z.string(), Points),
  })
  .superRefine(({ zero, ten }, ctx) => {
    const say = (message: string) => ctx.addIssue({ code: 'custom', path: ['zero'], message });
    if ((zero === null) !== (ten === null)) say('Both figures, or neither.');
    else if (zero !== null && zero === ten) say('The figures for 0 and for 10 must differ.');
  });

/** A heading's name, and where the reviewer gives the points, each contender's with its reason. */
export function OwnPoints({ heading, contenders, onKeep, onClose }: Props) {
  const own = heading.from.kind === 'own' ? heading.from.points : null;
  const { form, onSubmit } = useTypedForm(
    Typed,
    {
      name: heading.name,
      zero: fieldText(heading.scale?.zero),
      ten: fieldText(heading.scale?.ten),
      points: Object.fromEntries(
        contenders.map(({ id }) => [
          id,
          { points: fieldText(own?.[id]?.points), reason: own?.[id]?.reason ?? '' },
        ]),
      ),
    },
    ({ name, zero, ten, points }) => {
      const given = Object.entries(points).flatMap(([id, { points: n, reason }]) =>
        n === null ? [] : [[id, { points: n, reason }]],
      );
      onKeep({
        name,
        scale: zero === null || ten === null ? undefined : { zero, ten },
        ...(own !== null && { from: { kind: 'own' as const, points: Object.fromEntries(given) } }),
      });
      return true;
    },
  );
  return (
    <EntryDialog onClose={onClose} maxWidth="sm">
      <DialogTitle>{own === null ? 'Name and scale' : 'My own points'}</DialogTitle>
      <FormProvider {...form}>
        <form onSubmit={onSubmit} noValidate>
          <DialogContent>
            <div className="stack" style={{ paddingTop: '0.4rem' }}>
              <Field name="name" label="Heading" />
              {own === null ? (
                <div className="inline-row" style={{ alignItems: 'start' }}>
                  <Field
                    name="zero"
                    label="Figure that gets 0"
                    numeric
                    sx={{ width: 190 }}
                    helperText="empty: the control, or the worst"
                  />
                  <Field
                    name="ten"
                    label="Figure that gets 10"
                    numeric
                    sx={{ width: 190 }}
                    helperText="empty: the best"
                  />
                </div>
              ) : (
                contenders.map((c) => (
                  <div key={c.id} className="inline-row" style={{ alignItems: 'start' }}>
                    <span style={{ width: 150, paddingTop: '0.6rem' }}>
                      <TesseraName index={c.order} name={c.name} size={16} />
                    </span>
                    <Field
                      name={`points.${c.id}.points`}
                      label={`Points of ${c.name}`}
                      numeric
                      sx={{ width: 120 }}
                      helperText="0 to 10"
                    />
                    <Field name={`points.${c.id}.reason`} label="Why" sx={{ flex: 1, minWidth: 160 }} />
                  </div>
                ))
              )}
            </div>
          </DialogContent>
          <DialogButtons onCancel={onClose} label="Keep" />
        </form>
      </FormProvider>
    </EntryDialog>
  );
}

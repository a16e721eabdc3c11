import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { Controller, useFieldArray, useFormContext, useWatch } from 'react-hook-form';
import { dateOfDay } from '~core/plan/days';
import { shortDate } from '../../bench/clock';
import { Field, GroupError } from '../../form/fields';
import { newRound } from './newRows';
import type { QuestionFormInput } from './questionForm';
import { isDay } from '../../ui/day/whole';

/** The planned rounds: name, day, and which traits are taken. */
export function RoundRows({ traits, locked }: { traits: { id: string; name: string }[]; locked: boolean }) {
  const { control } = useFormContext<QuestionFormInput>();
  const rounds = useFieldArray({ control, name: 'rounds', keyName: 'key' });
  const values = useWatch({ control, name: 'rounds' });
  const startDate = useWatch({ control, name: 'startDate' });
  const lastDay = Math.max(0, ...(values ?? []).map((r) => Number(r.day) || 0));
  return (
    <div className="stack tight">
      {rounds.fields.map((f, i) => {
        const day = Number(values?.[i]?.day);
        const date =
          values?.[i]?.day && Number.isInteger(day) && isDay(startDate)
            ? shortDate(dateOfDay(startDate, day))
            : '';
        return (
          <div className="fields" key={f.key}>
            <div className="w3">
              <Field name={`rounds.${i}.name`} label={`Name of round ${i + 1}`} />
            </div>
            <div className="w2">
              <Field name={`rounds.${i}.day`} label="Day" numeric suffix={date} />
            </div>
            <div className="w6">
              <Controller
                control={control}
                name={`rounds.${i}.traitIds`}
                render={({ field }) => (
                  <div role="group" aria-label={`Measured in round ${i + 1}`}>
                    {traits.map((t) => (
                      <FormControlLabel
                        key={t.id}
                        label={t.name || 'unnamed'}
                        disabled={locked}
                        control={
                          <Checkbox
                            size="small"
                            color="secondary"
                            checked={field.value.includes(t.id)}
                            onChange={(_, on) =>
                              field.onChange(
                                on ? [...field.value, t.id] : field.value.filter((x: string) => x !== t.id),
                              )
                            }
                          />
                        }
                      />
                    ))}
                    {traits.length === 0 && <span className="small quiet">Add a trait above first.</span>}
                  </div>
                )}
              />
              <GroupError name={`rounds.${i}.traitIds`} />
            </div>
            <div>
              {!locked && (
                <Button color="inherit" onClick={() => rounds.remove(i)} aria-label={`Remove round ${i + 1}`}>
                  Remove
                </Button>
              )}
            </div>
          </div>
        );
      })}
      {!locked && (
        <div>
          <Button
            variant="outlined"
            color="secondary"
            onClick={() =>
              rounds.append(
                newRound(
                  rounds.fields.length + 1,
                  rounds.fields.length === 0 ? 7 : lastDay + 7,
                  traits.map((t) => t.id),
                ),
              )
            }
          >
            Add a round
          </Button>
        </div>
      )}
    </div>
  );
}

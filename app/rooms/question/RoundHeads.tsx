import Button from '@mui/material/Button';
import { useFieldArray, useFormContext, useWatch } from 'react-hook-form';
import { dateOfDay } from '~core/plan/days';
import { shortDate } from '../../ui/clock';
import { Field, GroupError } from '../../form/fields';
import { useOpenOne } from '../../form/useOpenOne';
import { isDay } from '../../ui/day/whole';
import { newRound } from './newRows';
import type { QuestionFormInput } from './questionForm';

interface Props {
  traits: readonly { id: string }[];
  locked: boolean;
  busy: boolean;
}

/** The rounds over the table of traits: day, date and name; one is open to be named or removed. */
export function RoundHeads({ traits, locked, busy }: Props) {
  const { control, formState } = useFormContext<QuestionFormInput>();
  const rounds = useFieldArray({ control, name: 'rounds', keyName: 'key' });
  const [open, setOpen] = useOpenOne(formState.errors.rounds, busy);
  const [values, startDate] = useWatch({ control, name: ['rounds', 'startDate'] });
  const lastDay = Math.max(0, ...values.map((r) => Number(r.day) || 0));
  const dateOf = (text: string | undefined) =>
    text && Number.isInteger(Number(text)) && isDay(startDate)
      ? shortDate(dateOfDay(startDate, Number(text)))
      : '';
  return (
    <thead>
      <tr>
        <th scope="row">
          <h2>What is measured, and when</h2>
          {!locked && (
            <Button
              size="small"
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
          )}
        </th>
        {rounds.fields.map((f, i) => {
          const name = values[i]?.name || `round ${i + 1}`;
          return (
            <th key={f.key} scope="col" className={i === open ? 'open' : ''}>
              <span className="small quiet">{dateOf(values[i]?.day)}</span>
              {locked ? (
                <span className="round-day">
                  day <span className="num">{values[i]?.day}</span>
                </span>
              ) : (
                <Field name={`rounds.${i}.day`} label="Day" numeric size="small" />
              )}
              {locked ? (
                <span className="small">{name}</span>
              ) : (
                <button
                  type="button"
                  className="link small round-name"
                  title={name}
                  aria-expanded={i === open}
                  aria-label={`${i === open ? 'Close' : 'Open'} ${name}`}
                  onClick={() => setOpen(i === open ? null : i)}
                >
                  {name}
                </button>
              )}
            </th>
          );
        })}
        <td />
      </tr>
      {open !== null && open < rounds.fields.length && (
        <tr className="open">
          <td colSpan={rounds.fields.length + 2}>
            <div className="inline-row">
              <Field
                name={`rounds.${open}.name`}
                label={`Name of round ${open + 1}`}
                size="small"
                sx={{ width: 240 }}
              />
              {!locked && (
                <Button
                  color="inherit"
                  onClick={() => {
                    rounds.remove(open);
                    setOpen(null);
                  }}
                  aria-label={`Remove round ${open + 1}`}
                >
                  Remove
                </Button>
              )}
              <GroupError name={`rounds.${open}.traitIds`} />
            </div>
          </td>
        </tr>
      )}
    </thead>
  );
}

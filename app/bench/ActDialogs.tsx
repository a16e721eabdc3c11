import { z } from 'zod';
import { AskDialog } from '../form/AskDialog';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import dayjs from 'dayjs';
import { useState } from 'react';
import { minutesTaken } from '../form/schemaFields';
import { plural } from '~core/quantity/format';
import { useSend } from '../form/usePost';
import { DialogButtons } from '../ui/DialogButtons';
import { DayField } from '../ui/day/DayField';
import { isDay } from '../ui/day/whole';
import type { Act } from './acts';
import { relativeDay } from '../ui/clock';
import { EntryDialog } from '../ui/EntryDialog';

/** A task done on another day than today. */
export function LateDialog({
  act,
  today,
  onClose,
  onDone,
}: {
  act: Act;
  today: string;
  onClose: () => void;
  onDone: (on: string) => void;
}) {
  const yesterday = dayjs(today).subtract(1, 'day').format('YYYY-MM-DD');
  const [date, setDate] = useState(act.date < today ? act.date : yesterday);
  const ahead = date > today;
  return (
    <EntryDialog onClose={onClose} maxWidth="xs">
      <DialogTitle>Done: {act.what}</DialogTitle>
      <DialogContent>
        <DayField
          label="On"
          autoFocus
          value={date}
          onChange={setDate}
          error={ahead || !isDay(date)}
          helperText={
            !isDay(date)
              ? 'A whole day.'
              : ahead
                ? 'That day is still to come.'
                : `${relativeDay(date, today)}; the log keeps when it was written`
          }
          sx={{ mt: 1 }}
        />
      </DialogContent>
      <DialogButtons
        onCancel={onClose}
        label="Done on that day"
        onDo={() => {
          if (ahead || !isDay(date)) return;
          onDone(date);
          onClose();
        }}
      />
    </EntryDialog>
  );
}

/** Why a task isn’t done. */
export function SkipDialog({ act, onClose }: { act: Act; onClose: () => void }) {
  const send = useSend();
  return (
    <AskDialog
      title={`Not done: ${act.what}`}
      label="Why"
      hint="It goes into the log."
      doLabel="Write it down"
      of={z.string().trim().min(1, 'Say why it isn’t done.')}
      onKeep={(reason) => send({ intent: 'skip', trialId: act.trialId, task: act.task, reason })}
      onClose={onClose}
    />
  );
}

/** Minutes an act took, for the cost; a task that is still open is ticked off with it. */
export function TookDialog({ act, onClose }: { act: Act; onClose: () => void }) {
  const send = useSend();
  const ticks = act.task !== null && act.state === 'open';
  return (
    <AskDialog
      title={`${ticks ? 'Done: ' : ''}${act.what}`}
      label="It took"
      hint={`For all ${plural(act.unitNoun)} of the trial together. Cost counts it if you like.`}
      doLabel={ticks ? 'Done' : 'Write it down'}
      of={minutesTaken()}
      unit="min"
      onKeep={(minutes) =>
        send({
          ...{ intent: 'took', trialId: act.trialId, what: act.what, minutes },
          ...(ticks && { task: act.task }),
        })
      }
      onClose={onClose}
    />
  );
}

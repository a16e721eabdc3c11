import Dialog from '@mui/material/Dialog';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import InputAdornment from '@mui/material/InputAdornment';
import TextField from '@mui/material/TextField';
import dayjs from 'dayjs';
import { useState } from 'react';
import { parseDecimal } from '~core/quantity/decimal';
import { plural } from '~core/quantity/format';
import { usePost } from '../form/usePost';
import { DialogButtons } from '../ui/DialogButtons';
import { DayField } from '../ui/day/DayField';
import { isDay } from '../ui/day/whole';
import type { Act } from './acts';
import { relativeDay } from './clock';

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
    <Dialog open onClose={onClose} fullWidth maxWidth="xs">
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
    </Dialog>
  );
}

/** Why a task isn’t done. */
export function SkipDialog({ act, onClose }: { act: Act; onClose: () => void }) {
  const post = usePost();
  const [reason, setReason] = useState('');
  const [asked, setAsked] = useState(false);
  const missing = asked && reason.trim() === '';
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm">
      <DialogTitle>Not done: {act.what}</DialogTitle>
      <DialogContent>
        <TextField
          label="Why"
          autoFocus
          fullWidth
          value={reason}
          onChange={(e) => setReason(e.target.value)}
          error={missing}
          helperText={missing ? 'Say why it isn’t done.' : 'It goes into the log.'}
          sx={{ mt: 1 }}
        />
      </DialogContent>
      <DialogButtons
        onCancel={onClose}
        label="Write it down"
        onDo={() => {
          setAsked(true);
          if (reason.trim() === '') return;
          post({ intent: 'skip', trialId: act.trialId, task: act.task, reason });
          onClose();
        }}
      />
    </Dialog>
  );
}

/** Minutes an act took, for the cost; a task that is still open is ticked off with it. */
export function TookDialog({ act, onClose }: { act: Act; onClose: () => void }) {
  const post = usePost();
  const [typed, setTyped] = useState('');
  const [asked, setAsked] = useState(false);
  const minutes = parseDecimal(typed.trim()) ?? NaN;
  const wrong = !(minutes > 0 && minutes <= 1440);
  const ticks = act.task !== null && act.state === 'open';
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs">
      <DialogTitle>
        {ticks ? 'Done: ' : ''}
        {act.what}
      </DialogTitle>
      <DialogContent>
        <TextField
          label="It took"
          autoFocus
          fullWidth
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
          error={asked && wrong}
          helperText={
            asked && wrong
              ? 'Minutes, above 0 and at most 1,440.'
              : `For all ${plural(act.unitNoun)} of the trial together. Cost counts it if you like.`
          }
          slotProps={{
            htmlInput: { inputMode: 'decimal' },
            input: { endAdornment: <InputAdornment position="end">min</InputAdornment> },
          }}
          sx={{ mt: 1 }}
        />
      </DialogContent>
      <DialogButtons
        onCancel={onClose}
        label={ticks ? 'Done' : 'Write it down'}
        onDo={() => {
          setAsked(true);
          if (wrong) return;
          post({
            ...{ intent: 'took', trialId: act.trialId, what: act.what, minutes },
            ...(ticks && { task: act.task }),
          });
          onClose();
        }}
      />
    </Dialog>
  );
}

import { z } from 'zod';
import { EntryId } from '~core/model/ids';
import { ok } from '~core/model/result';
import { command, done } from '../form/command';
import { takenBack } from '../store/change';
import { appendEntries } from '../store/trials';

const Lines = z.object({ ids: z.array(EntryId).min(1) });

/** Lines of the log taken back together, and brought back again. */
export const takeBackCommands = {
  // Whoever sends it says it, with an Undo.
  takeBack: command(Lines, async (trialId, { ids }) => {
    const written = await appendEntries(
      trialId,
      ids.map((id) => takenBack(id)),
    );
    return written.ok ? ok({}) : written;
  }),
  // A line stands again when the correction that took it back is itself taken back.
  bringBack: command(Lines, async (trialId, { ids }) =>
    done(
      await appendEntries(trialId, ({ log }) =>
        ids.flatMap((id) => {
          const back = log.findLast((e) => e.kind === 'correction' && e.supersedes === id && !e.replacement);
          return back ? [takenBack(back.id, 'brought back')] : [];
        }),
      ),
      'It stands again.',
    ),
  ),
};

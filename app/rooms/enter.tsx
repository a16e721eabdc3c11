import { redirect } from 'react-router';
import { stageOf } from '~core/schedule/rounds';
import { todayDate } from '../ui/clock';
import { loadTrial } from '../store/trials';
import type { RoomArgs } from './roomArgs';

/** Opens a trial in the room where the work is. */
export async function clientLoader({ params }: RoomArgs) {
  const { row, state } = await loadTrial(params.trialId);
  const stage = stageOf(state, todayDate());
  const room =
    stage === 'finished'
      ? 'findings'
      : stage === 'running'
        ? 'rounds'
        : row.plan.treatments.length === 0
          ? 'question'
          : 'layout';
  return redirect(`/trial/${row.id}/${room}`);
}

export default function Enter() {
  return null;
}

import { z } from 'zod';
import { ok } from '~core/model/result';
import { protocolOf } from '~core/schedule/protocols';
import { applyProtocol } from '~core/schedule/protocols/applyProtocol';
import { type Answer, command, done, saves, toAction } from '../../form/command';
import { type Refused, refuse } from '../../form/recordForm';
import { loadTrial, savePlan } from '../../store/trials';
import { undoDepth } from '../../store/undo';
import type { RoomArgs } from '../roomArgs';
import { undoCommand } from '../undoAction';
import { questionRecord } from './questionForm';

export async function loadQuestion({ params }: RoomArgs) {
  const { row, state } = await loadTrial(params.trialId);
  return {
    id: row.id,
    plan: row.plan,
    sealedAt: state.seal?.at ?? null,
    undoable: state.seal ? 0 : await undoDepth(row.id),
  };
}

export type QuestionData = Awaited<ReturnType<typeof loadQuestion>>;

export const questionAction = toAction({
  question: saves('plan', questionRecord, 'The question is saved.'),
  undo: undoCommand,
  protocol: command(
    z.object({ protocolId: z.string() }),
    async (trialId, { protocolId }): Promise<Answer> => {
      const protocol = protocolOf(protocolId);
      if (!protocol) return refuse('protocolId', 'There is no such protocol.');
      const saved = await savePlan<Refused>(trialId, (plan, { trial }) =>
        trial.state.observations.length > 0
          ? refuse('protocolId', 'Values are logged already; traits can’t be replaced.')
          : ok(applyProtocol(plan, protocol)),
      );
      return done(saved, 'The plan is filled from the protocol; change what you like.');
    },
  ),
});

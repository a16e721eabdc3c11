import { z } from 'zod';
import type { Match } from '~core/mixing/matchPlan';
import { ElementSymbol } from '~core/model/element';
import { TreatmentId } from '~core/model/ids';

/** What was chosen to match on; the doses are worked out from the plan as it is when they are saved. */
export const MatchForm = z.object({
  intent: z.literal('match'),
  basis: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('label'), end: z.enum(['low', 'middle', 'high']) }),
    z.object({ kind: z.literal('element'), element: ElementSymbol }),
    z.object({ kind: z.literal('strength') }),
    z.object({ kind: z.literal('money') }),
  ]),
  day: z.number().int(),
  referenceId: TreatmentId.nullable(),
});

export const matchOf = ({ basis, day, referenceId }: z.output<typeof MatchForm>): Match => ({
  basis,
  day,
  referenceId,
});

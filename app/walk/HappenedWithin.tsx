import type { ReactNode } from 'react';
import type { Plan, Round } from '~core/model/plan';
import { todayDate } from '../bench/clock';
import { SittingChoice, useSitting } from './SittingChoice';
import { Happened } from '../form/happened';
import { whenOf } from './sitting';

interface Props {
  plan: Pick<Plan, 'id' | 'startDate'>;
  /** what is done at this sitting, and the day it was planned for */
  what: string;
  day: number;
  children: ReactNode;
}

/** Asks once when what is written down here happened, and tells the forms within. */
export function HappenedWithin({ plan, what, day, children }: Props) {
  const round = { id: `${what}-${day}` as Round['id'], name: what, day, traitIds: [] };
  const [sitting, say] = useSitting(plan, round);
  return (
    <Happened value={whenOf(sitting, plan, round, todayDate())}>
      <div style={{ maxWidth: '22rem' }}>
        <SittingChoice plan={plan} round={round} sitting={sitting} onSay={say} />
      </div>
      {children}
    </Happened>
  );
}

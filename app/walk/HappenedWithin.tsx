import type { ReactNode } from 'react';
import type { Plan } from '~core/model/plan';
import { Happened } from '../form/happened';
import { SittingChoice } from './SittingChoice';
import { useSitting } from './useSitting';

interface Props {
  plan: Pick<Plan, 'id' | 'startDate'>;
  /** what is done at this sitting, and the day it was planned for */
  what: string;
  day: number;
  children: ReactNode;
}

/** Asks once when what is written down here happened, and tells the forms within. */
export function HappenedWithin({ plan, what, day, children }: Props) {
  const sitting = useSitting(plan, { id: `${what}-${day}`, name: what, day });
  return (
    <Happened value={sitting.when}>
      <div style={{ maxWidth: '22rem' }}>
        <SittingChoice sitting={sitting} />
      </div>
      {children}
    </Happened>
  );
}

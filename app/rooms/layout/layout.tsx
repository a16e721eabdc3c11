import { plural } from '~core/quantity/format';
import Button from '@mui/material/Button';
import { useEffect } from 'react';
import { Link, useLoaderData } from 'react-router';
import { missingForSeal } from '~core/model/seal';
import { useDeed } from '../../form/useDeed';
import { loadTrial, undoDepth } from '../../store/trials';
import { Legend } from '../../ui/Legend';
import { announce } from '../../ui/announce';
import { RoomHead } from '../../ui/RoomHead';
import { isTyping } from '../../ui/keys';
import type { RoomArgs } from '../roomArgs';
import { AreasForm } from './AreasForm';
import { ArrangePlan } from './ArrangePlan';
import { DesignPanel } from './DesignPanel';
import { SealPanel } from './SealPanel';
import { layoutAction } from './layoutActions';

export async function clientLoader({ params }: RoomArgs) {
  const { row, state } = await loadTrial(params.trialId);
  return {
    id: row.id,
    plan: row.plan,
    positions: state.positions,
    seal: state.seal,
    canBreakSeal: state.observations.length === 0,
    undoable: state.seal ? 0 : undoDepth(row.id),
    missing: missingForSeal(row.plan),
  };
}

export async function clientAction({ params, request }: RoomArgs) {
  const data: unknown = await request.json();
  const result = await layoutAction(params.trialId, data);
  // The forms of places and design show their own errors; deeds on the plan answer here.
  const isForm = typeof data === 'object' && data !== null && ('areas' in data || 'replicates' in data);
  const text = 'errors' in result ? Object.values(result.errors)[0] : result.message;
  if (!isForm && text) announce(text);
  return result;
}

export default function LayoutRoom() {
  const { id, plan, positions, seal, undoable, missing, canBreakSeal } = useLoaderData<typeof clientLoader>();
  const deed = useDeed();
  const sealed = seal !== null;

  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (isTyping(e) || !(e.ctrlKey || e.metaKey) || e.key !== 'z' || undoable === 0) return;
      e.preventDefault();
      deed({ intent: 'undo' });
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  });

  return (
    <div className="with-side">
      <div className="main">
        <RoomHead
          title="Layout"
          actions={
            <>
              {!sealed && (
                <Button color="secondary" disabled={undoable === 0} onClick={() => deed({ intent: 'undo' })}>
                  Undo
                </Button>
              )}
              {plan.units.length > 0 && (
                <Button color="secondary" variant="outlined" component={Link} to={`/trial/${id}/labels`}>
                  Labels
                </Button>
              )}
            </>
          }
        >
          {plan.units.length > 0
            ? `${plan.units.length} ${plural(plan.unitNoun)} seen from above. Drag one to move it; two change places. With the keyboard: arrows walk, Space lifts and puts down.`
            : 'Where the units stand. The middle and the end of a shelf differ: chance decides who stands where.'}
        </RoomHead>
        {plan.areas.length > 0 && plan.units.length > 0 ? (
          <>
            <ArrangePlan
              plan={plan}
              positions={positions}
              move={(unitId, to) => deed({ intent: 'move', unitId, to, reason: '' })}
            />
            <Legend plan={plan} />
            {plan.design?.kind === 'rcbd' && (
              <p className="small quiet" style={{ marginTop: '0.6rem' }}>
                Every block (b1, b2 …) is a run of neighbours that holds each contender once.
              </p>
            )}
          </>
        ) : (
          <div className="empty">
            <h2>Nothing stands here yet</h2>
            <p>
              Say how many rows and columns the place has, then how many {plural(plan.unitNoun)} of each
              contender, and let chance lay them out. For example: two shelf levels of 2 × 5, five{' '}
              {plural(plan.unitNoun)} of each of four contenders, in blocks.
            </p>
          </div>
        )}
        <AreasForm key={id} areas={plan.areas} locked={sealed} />
      </div>
      <aside className="side stack">
        <DesignPanel key={id} plan={plan} locked={sealed} />
        <SealPanel trialId={id} seal={seal} missing={missing} canBreakSeal={canBreakSeal} />
      </aside>
    </div>
  );
}

import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { Link } from 'react-router';
import { armAt } from '~core/mixing/armAt';
import type { MatchBasis } from '~core/mixing/matching';
import { aroundOf, matchedArms } from '~core/mixing/matchPlan';
import { usesAt } from '~core/mixing/programme';
import { type ElementSymbol, elements } from '~core/model/element';
import { matchingNames } from '~core/model/plan';
import { usePost } from '../../form/usePost';
import { ViewSwitch } from '../../ui/ViewSwitch';
import { CodesClosed } from '../CodesClosed';
import { ElementBars } from './ElementBars';
import { GlanceTable } from './GlanceTable';
import { MatchTable } from './MatchTable';
import type { MixingData } from './mixingData';

type Kind = MatchBasis['kind'];
const bases: readonly (readonly [Kind, string, string])[] = [
  ['asIs', 'As planned', 'The doses as they stand in the plan.'],
  ['label', 'Label rate', 'As a buyer would use it: each product at its label’s rate.'],
  [
    'element',
    'Equal element',
    'Is it the product, or more of the nutrient? Equal for each unit over the trial.',
  ],
  ['strength', 'Equal strength', 'Is it the product, or a stronger solution?'],
  ['money', 'Equal money', 'What the same money per litre buys.'],
];

/** What each treatment gets of everything, and what it would get if the doses were matched otherwise. */
export function CompareView({ data }: { data: MixingData }) {
  const { id, plan, day, sealed, undoable } = data;
  const post = usePost();
  const [kind, setKind] = useState<Kind>('asIs');
  const [element, setElement] = useState<ElementSymbol>(plan.mixing.matchedElement);
  const [end, setEnd] = useState<'low' | 'middle' | 'high'>('middle');
  const fed = plan.treatments.filter((t) => usesAt(t, day).length > 0);
  const [referenceId, setReference] = useState<string>(
    (fed.find((t) => t.role === 'reference') ?? fed[0])?.id ?? '',
  );
  if (data.blind) return <CodesClosed trialId={id} title="What each gets" />;
  if (fed.length === 0) {
    return (
      <div className="empty">
        <h2>No doses yet</h2>
        <p>
          Once the contenders have products with a dose per litre, this shows the milligrams of each element
          they get, the estimated strength and the cost, side by side.
        </p>
        <Link to={`/trial/${id}/contenders`}>Doses, in Contenders</Link>
      </div>
    );
  }
  const basis: MatchBasis =
    kind === 'element' ? { kind, element } : kind === 'label' ? { kind, end } : { kind };
  const around = aroundOf(plan);
  const arms = plan.treatments.map((t) => armAt(plan, t, day));
  const referenceOrNone = fed.find((t) => t.id === referenceId)?.id ?? null;
  const matched = matchedArms(plan, { basis, day, referenceId: referenceOrNone });
  const reference = plan.treatments.find((t) => t.id === referenceId);
  const apply = () => post({ intent: 'match', basis, day, referenceId: referenceOrNone });
  return (
    <div className="stack">
      <ViewSwitch
        label="Doses matched on"
        views={bases.map(([k, name]) => [k, name] as const)}
        view={kind}
        onView={setKind}
      />
      <div className="inline-row no-print" style={{ alignItems: 'flex-start' }}>
        {kind === 'element' && (
          <TextField
            select
            size="small"
            label="Element"
            value={element}
            onChange={(e) => setElement(e.target.value as ElementSymbol)}
            sx={{ width: 100 }}
          >
            {elements.map((e) => (
              <MenuItem key={e} value={e}>
                {e}
              </MenuItem>
            ))}
          </TextField>
        )}
        {kind === 'label' && (
          <TextField
            select
            size="small"
            label="Of its range"
            value={end}
            onChange={(e) => setEnd(e.target.value as typeof end)}
            sx={{ width: 140 }}
          >
            <MenuItem value="low">the low end</MenuItem>
            <MenuItem value="middle">the middle</MenuItem>
            <MenuItem value="high">the high end</MenuItem>
          </TextField>
        )}
        {kind !== 'asIs' && kind !== 'label' && (
          <TextField
            select
            size="small"
            label="Equal to"
            value={referenceId}
            onChange={(e) => setReference(e.target.value)}
            sx={{ width: 200 }}
          >
            {fed.map((t) => (
              <MenuItem key={t.id} value={t.id}>
                {t.name}
              </MenuItem>
            ))}
          </TextField>
        )}
        {kind !== 'asIs' && !sealed && (
          <Button variant="contained" onClick={apply}>
            Use these doses
          </Button>
        )}
        {undoable > 0 && (
          <Button color="secondary" onClick={() => post({ intent: 'undo' })}>
            Undo
          </Button>
        )}
      </div>
      <p className="quiet small">
        {bases.find(([k]) => k === kind)![2]}{' '}
        {kind !== 'asIs' && kind !== 'label' && reference ? `All get as much as ${reference.name}. ` : ''}
        Day {day} of the programme; in the plan doses are matched on {matchingNames[plan.matchedOn]}
        {plan.matchedOn === 'element' ? `: ${plan.mixing.matchedElement}` : ''}.
        {kind !== 'asIs' && sealed && ' The plan is sealed: this only shows what would have been.'}
      </p>
      <ElementBars data={data} matched={matched} />
      <MatchTable data={data} matched={matched} element={element} />
      <GlanceTable
        data={data}
        arms={arms}
        referenceId={referenceOrNone}
        around={around}
        element={element}
        end={end}
      />
    </div>
  );
}

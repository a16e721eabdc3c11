import type { ReactNode } from 'react';
import { comparesPeers } from '~core/plan/control';
import { experimentalNoun, sharesPlace } from '~core/plan/sharing';
import { sayDf } from '~core/quantity/format';
import { formatMoney } from '~core/quantity/money';
import type { HowMany } from '~core/design/howMany';
import type { Plan } from '~core/model/plan';
import { formatFigure, plural } from '~core/quantity/format';
import { numberFrom } from '../../form/schemaFields';
import { TypedField } from '../../form/TypedField';

/** What can be asked for, as it is typed. */
export const asked = { difference: numberFrom(0.1, 1000), power: numberFrom(50, 99) };

interface Props {
  plan: Plan;
  sized: HowMany | null;
  difference: string;
  power: string;
  onDifference: (typed: string) => void;
  onPower: (typed: string) => void;
}

const percent = (v: number | null) => (v === null ? '–' : `${formatFigure(v, 1)} %`);

/** What this plan can see, and how many units the difference that matters would take. */
export function HowManyPart(props: Props) {
  const { plan, sized } = props;
  const noun = plural(experimentalNoun(plan));
  /** Equals have no control. */
  const beside = (figure: ReactNode) =>
    comparesPeers(plan) ? null : (
      <>
        {figure} <small>against the control</small>
        <br />
      </>
    );
  return (
    <section className="section">
      <h2>How many?</h2>
      <div className="inline-row" style={{ margin: '0.8rem 0' }}>
        <TypedField
          label="Difference that matters"
          of={asked.difference}
          value={props.difference}
          onType={props.onDifference}
          suffix="%"
          size="medium"
          sx={{ maxWidth: 190 }}
        />
        <TypedField
          label="Wanted power"
          of={asked.power}
          value={props.power}
          onType={props.onPower}
          suffix="%"
          size="medium"
          sx={{ maxWidth: 150 }}
        />
      </div>
      {sized && (
        <dl className="sizes">
          <div>
            <dt>This plan</dt>
            <dd>
              {sized.replicates > 0 ? (
                <>
                  {sized.replicates}{' '}
                  <small>
                    {sized.replicates === 1 ? experimentalNoun(plan) : noun} of each,{' '}
                    {sayDf(sized.dfResidual)}
                  </small>
                </>
              ) : (
                <small>not laid out yet</small>
              )}
            </dd>
          </div>
          <div>
            <dt>Smallest difference it sees</dt>
            <dd>
              {beside(percent(sized.seenVersusControl))}
              {percent(sized.seenPair)} <small>between any two</small>
            </dd>
          </div>
          <div>
            <dt>Power for the difference that matters</dt>
            <dd>
              {beside(
                sized.powerVersusControl === null
                  ? '–'
                  : `${formatFigure(100 * sized.powerVersusControl, 0)} %`,
              )}
              {sized.powerPair === null ? '–' : `${formatFigure(100 * sized.powerPair, 0)} %`}{' '}
              <small>between two</small>
            </dd>
          </div>
          <div>
            <dt>Needed of each</dt>
            <dd>
              {beside(sized.neededVersusControl ?? '–')}
              {sized.neededPair ?? '–'} <small>between any two</small>
            </dd>
          </div>
          <div>
            <dt>That takes</dt>
            <dd>
              {sized.positionsNeeded ?? '–'}{' '}
              <small>
                {sharesPlace(plan) ? 'areas' : 'positions'}; there are {sized.positions}
              </small>
              <br />
              {sized.costNeeded ? formatMoney(sized.costNeeded) : '–'}{' '}
              <small>{sized.costNeeded ? 'of products' : 'some products have no price'}</small>
            </dd>
          </div>
        </dl>
      )}
      <details className="small quiet" style={{ marginTop: '0.8rem' }}>
        <summary>How it is reckoned</summary>
        {!comparesPeers(plan) &&
          'Against the control: Dunnett, two-sided, one product differing and the others equal to the control. '}
        Between two: Tukey. Noncentral t, alpha 5 % for all comparisons together.
      </details>
    </section>
  );
}

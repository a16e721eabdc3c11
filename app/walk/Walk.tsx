import { type ReactNode, useState } from 'react';
import type { Observation, TrialState } from '~core/log/state';
import type { Trait } from '~core/model/plan';
import type { UnitId } from '~core/model/ids';
import { planIndex } from '~core/plan/planIndex';
import { todayDate } from '../ui/clock';
import { useSend } from '../form/usePost';
import { backToPad } from '../ui/keys';
import { useTileInSight } from '../ui/useTileInSight';
import { FindUnit } from './FindUnit';
import { LogDialog } from './LogDialog';
import { NotKept } from './NotKept';
import { type Paste, PasteDialog } from './PasteDialog';
import { SittingChoice } from './SittingChoice';
import { GoBack, PadMore, SomethingOff, StandingValue, UnitHeading, spokenNumber } from './UnitHeading';
import { type Onwards, WhatIsNext } from './WhatIsNext';
import { entered, questionOf } from './asking';
import type { Capture, Stop } from './capture';
import { type Stops, samplesAreAlike } from './stops';
import { useWalking } from './useWalking';
import type { SittingInHand } from './useSitting';
import type { How, PutBy } from './walking';

/** The stop in hand, as what is drawn beside the plan knows it. */
export interface InHand<D> extends Stop {
  draft: D;
  put: (change: Partial<D>, how?: How) => void;
  /** why it isn't kept */
  fault: string | null;
  /** what is asked before it is kept */
  warning: string | null;
  /** Enter, or the button: keeps what is typed, asks about it, or passes the stop over */
  enter: () => void;
  /** takes it, and keeps it where nothing about it is odd */
  offer: (change: Partial<D>) => void;
  /** writes something else of this stop, and goes on or stays */
  write: (data: object, then: 'next' | 'stay') => void;
  /** another sample of the unit */
  toSample: (sample: number) => void;
  /** what is done with a value that was kept: “tray 9”; null where the unit has more to take */
  nextName: string | null;
  somethingOff: () => void;
}

/** What is drawn around the stop in hand. */
interface Props<D> {
  state: TrialState;
  /** the trial, round and trait */
  scope: string;
  stops: Stops;
  capture: Capture<D>;
  sitting: SittingInHand;
  startAt?: UnitId | undefined;
  /** of the side: what it holds */
  label: string;
  /** left out: the plan stands above the pad on a phone, and the pad under the thumb */
  className?: string;
  sideClass?: string;
  /** above the plan, beside it, and under the pad; drawn for the stop in hand */
  main: (at: InHand<D>, pick: (id: UnitId) => void, putBy: readonly PutBy<D>[]) => ReactNode;
  pad: (at: InHand<D>) => ReactNode;
  rows?: (at: InHand<D>) => ReactNode;
  /** seldom asked for */
  more?: ReactNode;
  /** a column or a table of it may be pasted; left out: it is in words */
  paste?: Paste | undefined;
  /** what the log has of a stop in this round */
  standing?: { of: (at: Stop) => Observation | undefined; trait: Trait };
  /** what a sample of a unit is called */
  sampleName?: (at: Stop) => string;
  /** goes on otherwise than along the stops. @returns whether it did */
  onwards?: (from: Stop, to: UnitId, by: 1 | -1) => boolean;
  /** an Enter on nothing, where it goes elsewhere */
  onPass?: (() => void) | null | undefined;
  /** a value was sent off */
  onSent?: (at: Stop) => void;
  /** all is taken, and what comes next; null while something is open */
  done?: { said: string; next: Onwards | null } | null;
}

/** The frame of every walk: the plan, and for one unit after the other a pad, its questions, what isn't kept, what is next. */
export function Walk<D>(p: Props<D>) {
  const { state, stops, capture, sitting } = p;
  const { plan } = state;
  const send = useSend({ tiles: true });
  const sendOff = useSend();
  const { walk, at, move, pick } = useWalking(p.scope, capture, stops, p.startAt);
  /** a value before its day was confirmed once */
  const [early, setEarly] = useState(false);
  const [off, setOff] = useState(false);
  const [more, setMore] = useState(false);
  const [pasting, setPasting] = useState(false);
  useTileInSight(at?.unit.id);
  if (!at) return <p>No living {plan.unitNoun} is left.</p>;
  const { unit, sample } = at;
  const unitId = unit.id;
  const { draft, asking, putBy } = walk;
  const here = { unitId, sample };

  // When it was is said once for the sitting; only what is to come is asked about.
  const ahead = sitting.planned !== null && sitting.planned >= todayDate();
  const today = early || sitting.said.at !== 'now' || !ahead ? null : todayDate();
  const text = capture.textOf(draft);
  const question = questionOf({ ...asking, text }, capture.doubt(draft, at, today), unit.code);
  const happened = sitting.when && { when: sitting.when };

  const goTowards = (by: 1 | -1) => {
    const to = stops.step(here, by);
    if (p.onwards?.(at, to.unitId, by)) return;
    // Forwards a unit opens at its first open sample by itself.
    const exactly = to.unitId === unitId || by === -1;
    move({ leave: here, go: to.unitId, sample: exactly ? to.sample : undefined });
  };
  const write = (data: object, then: 'next' | 'stay', sent = draft) => {
    if (sitting.fault) return move({ fault: sitting.fault });
    void send({ ...data, ...happened }).then((kept) => kept || move({ refused: { ...here, draft: sent } }));
    move({ sent: here });
    if (then === 'next') goTowards(1);
  };
  const keep = (sent: D) => {
    setEarly(true);
    p.onSent?.(at);
    const [body, ...besides] = capture.bodies(sent, at);
    for (const b of besides) void sendOff({ body: b, ...happened });
    write({ body }, 'next', sent);
  };
  const enter = () => {
    const fault = capture.fault(draft, at) ?? (capture.isBlank(draft) ? null : sitting.fault);
    if (fault) return move({ fault });
    if (capture.bodies(draft, at).length === 0) return p.onPass ? p.onPass() : goTowards(1);
    const answer = entered({ ...asking, text }, question);
    if (!answer.keep) return move({ asking: answer.next });
    keep(draft);
  };
  const offer = (change: Partial<D>) => {
    const nextDraft = { ...draft, ...change };
    move({ put: change, how: 'taken' });
    if (!capture.fault(nextDraft, at) && !sitting.fault && !capture.doubt(nextDraft, at, today))
      keep(nextDraft);
  };
  const next = stops.step(here, 1);
  const standing = p.standing?.of(at);
  const inHand: InHand<D> = {
    ...at,
    ...{ draft, enter, offer, fault: walk.fault },
    warning: question !== null && asking.asked === question ? question : null,
    put: (change, how = 'typed') => move({ put: change, how }),
    write: (data, then) => {
      write(data, then);
      backToPad();
    },
    toSample: (s) => {
      move({ leave: here, go: unitId, sample: s });
      backToPad();
    },
    nextName:
      next.unitId === unitId
        ? null
        : `${plan.unitNoun} ${spokenNumber(stops.units.find((u) => u.id === next.unitId)!)}`,
    somethingOff: () => setOff(true),
  };
  return (
    <div className={`with-side ${p.className ?? 'standing'}`}>
      <div className="main">{p.main(inHand, pick, putBy)}</div>
      <aside className={`side ${p.sideClass ?? ''}`} aria-label={p.label}>
        <UnitHeading
          unit={unit}
          noun={plan.unitNoun}
          index={planIndex(plan).treatmentOrder(unit.treatmentId)}
          parts={state.parts.get(unitId)}
        />
        <SittingChoice sitting={sitting} />
        <NotKept
          plan={plan}
          putBy={putBy}
          said={capture.said}
          onTake={(takeUp) => move({ leave: here, takeUp })}
          onDrop={(drop) => move({ drop })}
        />
        {p.pad(inHand)}
        <div className="pad-rows">
          {p.rows?.(inHand)}
          <GoBack onBack={() => goTowards(-1)} />
          <SomethingOff onOpen={() => setOff(true)} />
          {p.className === undefined && <PadMore more={more} onMore={setMore} />}
          {p.done && <WhatIsNext {...p.done} />}
          {standing?.notYet && <p className="small quiet">Last said: not yet.</p>}
          {standing && (
            <StandingValue label="Kept in this round" standing={standing} trait={p.standing!.trait} />
          )}
          <div className={more ? 'pad-more open' : 'pad-more'}>
            {p.more}
            {p.paste && (
              <button type="button" className="pad-row" onClick={() => setPasting(true)}>
                <span>Paste a {p.paste.columns.length > 1 ? 'table' : 'column'} …</span>
              </button>
            )}
            <FindUnit units={stops.units} onFound={pick} />
          </div>
        </div>
        {pasting && p.paste && (
          <PasteDialog
            paste={p.paste}
            units={stops.units}
            sitting={sitting}
            onClose={() => setPasting(false)}
            onKeep={(bodies) => sendOff({ bodies, ...happened })}
          />
        )}
        {off && (
          <LogDialog
            unit={unit}
            sample={samplesAreAlike(plan) ? sample : null}
            sampleName={p.sampleName?.(at) ?? `sample ${sample}`}
            sitting={sitting}
            onClose={() => setOff(false)}
            onKeep={(body, when) => sendOff({ body, ...(when && { when }) })}
          />
        )}
      </aside>
    </div>
  );
}

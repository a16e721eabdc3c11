import { SittingChoice } from '../../walk/SittingChoice';
import { useSitting } from '../../walk/useSitting';
import type { When } from '../../form/happened';
import Button from '@mui/material/Button';
import { type ReactNode, useState } from 'react';
import { type TrialState, observationsOf } from '~core/log/state';
import type { UnitId } from '~core/model/ids';
import type { Round, Trait, Unit } from '~core/model/plan';
import { cropsTaken } from '~core/log/response';
import { planIndex } from '~core/plan/planIndex';
import { plural } from '~core/quantity/format';
import { LeaveGuard } from '../../form/UnsavedGuard';
import { usePost } from '../../form/usePost';
import { ToggleRow } from '../../ui/ToggleRow';
import { RankList } from '../../ui/RankList';
import { type Ranked, orderOf, ranksOf } from '../../ui/ranked';
import {
  type PairAnswer,
  type Pairwise,
  answerPair,
  beginPairwise,
  pairToAsk,
  questionsLeft,
} from './pairwise';
import { photosOf } from './photos/photoData';
import { usePictures } from './photos/usePictures';
import { walkOf } from '../../walk/stops';
import './OrderView.css';

interface Props {
  state: TrialState;
  round: Round;
  trait: Trait;
  head: ReactNode;
}

/** All units put in order by eye, under their codes alone: by drag, by keys, or two by two. */
export function OrderView({ state, round, trait, head }: Props) {
  const { plan } = state;
  const crops = cropsTaken(plan, trait) > 1 ? plan.cropsWithin : [];
  const [crop, setCrop] = useState(0);
  const sitting = useSitting(plan, round);
  return (
    <div className="order-view">
      {head}
      <div style={{ maxWidth: '22rem' }}>
        <SittingChoice sitting={sitting} />
      </div>
      {crops.length > 0 && (
        <ToggleRow
          label="Crop"
          value={crop}
          options={crops.map((name, i) => [i, name] as const)}
          onPick={setCrop}
        />
      )}
      {groupsOf(state, trait).map(({ name, units }) => (
        <section key={`${round.id}/${trait.id}/${crop}/${name}`} aria-label={name || trait.name}>
          {name && <h2>{name}</h2>}
          <OneOrder
            state={state}
            round={round}
            trait={trait}
            sample={crops.length > 0 ? crop + 1 : null}
            units={units}
            when={sitting.when}
          />
        </section>
      ))}
    </div>
  );
}

/** What is put in order together: all units, or those of each block where the trait is ranked within blocks. */
function groupsOf(state: TrialState, trait: Trait): { name: string; units: Unit[] }[] {
  const walk = walkOf(state, trait);
  if (!trait.withinBlocks || walk.some((u) => u.block === null)) return [{ name: '', units: walk }];
  const blocks = [...new Set(walk.map((u) => u.block!))].sort((a, b) => a - b);
  return blocks.map((block) => ({ name: `Block ${block}`, units: walk.filter((u) => u.block === block) }));
}

const placed = (order: readonly Ranked[]) => ranksOf(order).map((r) => `${r.id} ${r.rank}`);
/** Whether two orders give every unit the same place. */
const sameRanks = (a: readonly Ranked[], b: readonly Ranked[]) =>
  placed(a).sort().join() === placed(b).sort().join();

interface OneProps extends Omit<Props, 'head'> {
  sample: number | null;
  units: Unit[];
  when: When;
}

function OneOrder({ state, round, trait, sample, units: walk, when }: OneProps) {
  const { plan } = state;
  const post = usePost();
  const ids = walk.map((u) => u.id as string);
  const rankKept = (id: string) =>
    observationsOf(state, id as UnitId, trait.id, round.id).findLast((o) => o.sample === sample)?.value;
  const standing = orderOf(ids, rankKept);
  const allKept = ids.every((id) => rankKept(id) !== undefined);
  const [made, setOrder] = useState<readonly Ranked[] | null>(null);
  // The order made stays until the log has it: what is refused or still under way is not called kept.
  const order = made && allKept && sameRanks(made, standing) ? null : made;
  const [pairs, setPairs] = useState<Pairwise | null>(null);
  // Who died since has no place any more.
  const ranked = (order ?? standing).filter((r) => ids.includes(r.id));
  const code = (id: string) => planIndex(plan).unit(id)?.code ?? '?';
  const photos = photosOf(state);
  const pictures = usePictures(
    ids.flatMap((id) => {
      const photo = photos.findLast((p) => p.unitId === id);
      return photo ? [[id, photo.thumbSha256] as const] : [];
    }),
  );
  const face = (id: string) => (
    <>
      <strong className="num">{code(id)}</strong>
      {pictures.get(id) && <img className="order-picture" src={pictures.get(id)} alt="" />}
    </>
  );
  const keep = () => {
    post({
      order: {
        ...{ traitId: trait.id, roundId: round.id, sample },
        ranks: ranksOf(ranked).map((r) => ({ unitId: r.id, rank: r.rank })),
      },
      ...(when && { when }),
    });
  };
  const answer = (a: PairAnswer) => {
    if (!pairs) return;
    const next = answerPair(pairs, a);
    if (next.placing) return setPairs(next);
    setPairs(null);
    setOrder(next.sorted.flatMap((g) => g.map((id, i) => ({ id, tied: i > 0 }))));
  };
  const pair = pairs && pairToAsk(pairs);
  return (
    <>
      <LeaveGuard unsaved={order !== null || pairs !== null} what="The order you made" />
      {pair ? (
        <section aria-label="Two by two">
          <p className="quiet small" role="status">
            Which has more of it: {trait.name.toLowerCase()}? {questionsLeft(pairs)} questions at most.
          </p>
          <div className="order-pair">
            {pair.map((id, i) => (
              <button type="button" key={id} onClick={() => answer(i === 0 ? 'first' : 'second')}>
                {face(id)}
              </button>
            ))}
          </div>
          <div className="inline-row">
            <Button color="secondary" variant="outlined" onClick={() => answer('alike')}>
              Alike
            </Button>
            <Button color="inherit" onClick={() => setPairs(null)}>
              Leave it
            </Button>
          </div>
        </section>
      ) : (
        <>
          <p className="small quiet">
            The best first. Drag, or use the arrows; “as above” where two can’t be told apart.
            {allKept && order === null && ' Kept in this round.'}
          </p>
          <RankList label={trait.name} order={ranked} onOrder={setOrder} face={face} nameOf={code} />
          <div className="inline-row">
            <Button variant="contained" onClick={keep} disabled={allKept && order === null}>
              Keep the order of {walk.length} {plural(plan.unitNoun)}
            </Button>
            <Button color="secondary" onClick={() => setPairs(beginPairwise(ids))} disabled={ids.length < 2}>
              Two by two …
            </Button>
            {order !== null && (
              <Button color="inherit" onClick={() => setOrder(null)}>
                As it was kept
              </Button>
            )}
          </div>
        </>
      )}
    </>
  );
}

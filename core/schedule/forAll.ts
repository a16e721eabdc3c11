import type { PlannedTask } from '../model/task';

/** A task that is proposed to be filled in. */
type Proposed = Pick<PlannedTask, 'what' | 'why' | 'atHand' | 'caution'> & { name: string };

/** What is given to all units alike against pests and weather: a spray or a bait is an act of the trial, not a contender (practice). */
export const forAllAlike: readonly Proposed[] = [
  {
    name: 'A spray for all',
    what: 'Spray all units alike: ',
    why: 'What only some get is part of what is compared.',
    atHand: 'label, gloves, glasses, mask',
    caution:
      'Wear what the label asks; no wind, no sun on wet leaves. Keep the label’s waiting time before anything is eaten. The label and local rules come first.',
  },
  {
    name: 'A bait for all',
    what: 'Put out bait at all units alike: ',
    why: 'Slugs and ants don’t keep to one contender.',
    atHand: 'label, gloves',
    caution:
      'Out of reach of children, pets, birds and hedgehogs; never beside water. The label and local rules come first.',
  },
  {
    name: 'A cover for all',
    what: 'Cover all units alike: ',
    why: 'A net or fleece over some changes their light and air.',
    atHand: 'net or fleece, pegs',
    caution: 'Netting is kept tight: birds and hedgehogs are caught in what hangs loose.',
  },
];

import { balance } from './balance';
import { canopy } from './canopy';
import { death } from './death';
import { deviation } from './deviation';
import { doseChange } from './doseChange';
import { exclusion } from './exclusion';
import { drying } from './drying';
import { extraUnit } from './extraUnit';
import { feed } from './feed';
import { measurement } from './measurement';
import { mixedUp } from './mixedUp';
import { milestone } from './milestone';
import { mix } from './mix';
import { move } from './move';
import { note } from './note';
import { panel } from './panel';
import { panelAnswer } from './panelAnswer';
import { panelGuess } from './panelGuess';
import { panelReveal } from './panelReveal';
import { phDose } from './phDose';
import { photo } from './photo';
import { pick } from './pick';
import { reading } from './reading';
import { rehearsal } from './rehearsal';
import { replacement } from './replacement';
import { reveal } from './reveal';
import { seal } from './seal';
import { series } from './series';
import { split } from './split';
import { spot } from './spot';
import { stand } from './stand';
import { stock } from './stock';
import { taskDone } from './taskDone';
import { taskPlanned } from './taskPlanned';
import { taskSkipped } from './taskSkipped';
import { toldApart } from './toldApart';
import { warmUp } from './warmUp';
import { weighing } from './weighing';
import { work } from './work';

/** Every kind of line there is, by the name it is stored under. */
export const entryKinds = {
  measurement,
  weighing,
  drying,
  pick,
  reading,
  mix,
  stock,
  phDose,
  doseChange,
  feed,
  photo,
  spot,
  balance,
  canopy,
  series,
  move,
  deviation,
  death,
  replacement,
  split,
  extraUnit,
  mixedUp,
  toldApart,
  exclusion,
  note,
  stand,
  taskDone,
  taskSkipped,
  taskPlanned,
  milestone,
  work,
  warmUp,
  rehearsal,
  panel,
  panelAnswer,
  panelGuess,
  panelReveal,
  seal,
  reveal,
};
export type EntryKindName = keyof typeof entryKinds;

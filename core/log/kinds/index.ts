import { death } from './death';
import { deviation } from './deviation';
import { exclusion } from './exclusion';
import { feed } from './feed';
import { measurement } from './measurement';
import { mix } from './mix';
import { move } from './move';
import { note } from './note';
import { phDose } from './phDose';
import { photo } from './photo';
import { reading } from './reading';
import { reveal } from './reveal';
import { seal } from './seal';
import { series } from './series';
import { stock } from './stock';
import { taskDone } from './taskDone';
import { weighing } from './weighing';

/** Every kind of line there is, by the name it is stored under. */
export const entryKinds = {
  measurement,
  weighing,
  reading,
  mix,
  stock,
  phDose,
  feed,
  photo,
  series,
  move,
  deviation,
  death,
  exclusion,
  note,
  taskDone,
  seal,
  reveal,
};
export type EntryKindName = keyof typeof entryKinds;

import {
  mdiAlertOutline,
  mdiArrowDown,
  mdiArrowUp,
  mdiBackspaceOutline,
  mdiClose,
  mdiDotsVertical,
  mdiDragVertical,
  mdiHelpCircleOutline,
  mdiMagnify,
  mdiMinus,
  mdiPlus,
} from '@mdi/js';
import { createSvgIcon } from '@mui/material/utils';

// The few signs of the interface, from a package of outlines alone: one of ready components has 40,000 files.
const icon = (outline: string, name: string) => createSvgIcon(<path d={outline} />, name);

export const AddIcon = icon(mdiPlus, 'Add');
export const ArrowDownwardIcon = icon(mdiArrowDown, 'ArrowDownward');
export const ArrowUpwardIcon = icon(mdiArrowUp, 'ArrowUpward');
export const BackspaceIcon = icon(mdiBackspaceOutline, 'Backspace');
export const CloseIcon = icon(mdiClose, 'Close');
export const DragIndicatorIcon = icon(mdiDragVertical, 'DragIndicator');
export const HelpIcon = icon(mdiHelpCircleOutline, 'Help');
export const MoreVertIcon = icon(mdiDotsVertical, 'MoreVert');
export const RemoveIcon = icon(mdiMinus, 'Remove');
export const SearchIcon = icon(mdiMagnify, 'Search');
export const WarningAmberIcon = icon(mdiAlertOutline, 'WarningAmber');

import { formatFigure, formatSigned } from '~core/quantity/format';
import { temperatureShown, warmthText } from '~core/quantity/temperature';

type Quantity = 'ec' | 'ph' | 'temperature';

/** A reading of a vessel as it is written here, without its unit. */
export const readingText = (quantity: Quantity, value: number, decimals: number): string =>
  formatFigure(quantity === 'temperature' ? temperatureShown(value) : value, decimals);

/** How much a vessel's reading changed, with its sign, without its unit. */
export const changeText = (quantity: Quantity, change: number, decimals: number): string =>
  quantity === 'temperature' ? warmthText(change, decimals) : formatSigned(change, decimals);

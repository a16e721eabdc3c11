import { formatMoney } from '../quantity/money';
import { formatFigure, formatP, formatSigned } from '../quantity/format';
import type { Cell } from './block';

const withUnit = (figure: string, unit: string | undefined) => (unit ? `${figure} ${unit}` : figure);

/** A cell as text; “–” where there is nothing. @example cellText({ type: 'rank', rank: 1, tied: true }) // '1 =' */
export function cellText(cell: Cell): string {
  switch (cell.type) {
    case 'text':
    case 'letter':
    case 'fault':
      return cell.text || '–';
    case 'figure':
      if (cell.value === null) return '–';
      return withUnit(
        cell.signed ? formatSigned(cell.value, cell.decimals) : formatFigure(cell.value, cell.decimals),
        cell.unit,
      );
    case 'interval':
      return cell.low === null || cell.high === null
        ? '–'
        : withUnit(
            `${formatSigned(cell.low, cell.decimals)} to ${formatSigned(cell.high, cell.decimals)}`,
            cell.unit,
          );
    case 'p':
      return cell.value === null ? '–' : formatP(cell.value);
    case 'money':
      return cell.money === null ? '–' : formatMoney(cell.money);
    case 'treatment':
      return cell.name;
    case 'rank':
      return cell.rank === null ? '–' : `${cell.rank}${cell.tied ? ' =' : ''}`;
  }
}

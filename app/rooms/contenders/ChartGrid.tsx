import { announce } from '../../ui/announce';
import { CloseIcon } from '../../ui/icons';
import IconButton from '@mui/material/IconButton';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import type { ComponentProps } from 'react';
import { MOST_CHART_COLUMNS, MOST_CHART_ROWS, pasteIntoChart } from '~core/mixing/chartPaste';
import type { ChartPlace } from '~core/mixing/feedingChart';
import type { Product } from '~core/model/product';
import { type ChartDraft, chartOf, withChart } from './chartDraft';
import './chart.css';

interface Props {
  draft: ChartDraft;
  products: readonly Product[];
  /** the field that is wrong */
  fault: ChartPlace | null;
  onChange: (draft: ChartDraft) => void;
}

/** A name for a field of the chart, to find it by. */
export const placeKey = (place: ChartPlace): string =>
  [place.field, 'row' in place ? place.row : '', 'column' in place ? place.column : ''].join(' ').trim();

/** The sheet of a feeding chart: weeks or stages across, products down, a rate in each cell. */
export function ChartGrid({ draft, products, fault, onChange }: Props) {
  const setColumn = (i: number, change: Partial<ChartDraft['columns'][number]>) =>
    onChange({ ...draft, columns: draft.columns.map((c, j) => (i === j ? { ...c, ...change } : c)) });
  const setRow = (i: number, change: Partial<ChartDraft['rows'][number]>) =>
    onChange({ ...draft, rows: draft.rows.map((r, j) => (i === j ? { ...r, ...change } : r)) });
  const setCell = (row: number, column: number, text: string) =>
    setRow(row, {
      cells: draft.columns.map((_, k) => (k === column ? text : (draft.rows[row]!.cells[k] ?? ''))),
    });
  const at = (place: ChartPlace) => ({
    'data-place': placeKey(place),
    'aria-invalid': fault !== null && placeKey(fault) === placeKey(place),
  });
  return (
    <div className="scroll-x">
      <table className="chart-grid">
        <thead>
          <tr>
            <th scope="col">week or stage</th>
            {draft.columns.map((c, i) => (
              <th key={i} scope="col">
                <Cell
                  aria-label={`Name of column ${i + 1}`}
                  value={c.stage}
                  onText={(stage) => setColumn(i, { stage })}
                />
              </th>
            ))}
            <th>
              <span className="sr-only">remove</span>
            </th>
          </tr>
          <tr>
            <th scope="row">from day</th>
            {draft.columns.map((c, i) => (
              <td key={i}>
                <Cell
                  {...at({ field: 'fromDay', column: i })}
                  aria-label={`First day of column ${i + 1}`}
                  inputMode="decimal"
                  value={c.fromDay}
                  onText={(fromDay) => setColumn(i, { fromDay })}
                />
              </td>
            ))}
            <td />
          </tr>
          <tr>
            <th scope="row">share of the rate, %</th>
            {draft.columns.map((c, i) => (
              <td key={i}>
                <Cell
                  {...at({ field: 'strength', column: i })}
                  aria-label={`Share of the rate in column ${i + 1}`}
                  inputMode="decimal"
                  value={c.strength}
                  onText={(strength) => setColumn(i, { strength })}
                />
              </td>
            ))}
            <td />
          </tr>
        </thead>
        <tbody>
          {draft.rows.map((r, i) => (
            <tr key={i}>
              <th scope="row">
                <TextField
                  select
                  size="small"
                  value={r.productId}
                  onChange={(e) => setRow(i, { productId: e.target.value })}
                  error={at({ field: 'product', row: i })['aria-invalid']}
                  slotProps={{
                    select: {
                      displayEmpty: true,
                      SelectDisplayProps: { 'data-place': placeKey({ field: 'product', row: i }) } as object,
                    },
                    htmlInput: { 'aria-label': `Product of line ${i + 1}` },
                  }}
                  sx={{ width: 190 }}
                >
                  <MenuItem value="">which product?</MenuItem>
                  {products.map((p) => (
                    <MenuItem key={p.id} value={p.id}>
                      {p.name}
                    </MenuItem>
                  ))}
                </TextField>
              </th>
              {draft.columns.map((_, j) => (
                <td key={j}>
                  <Cell
                    {...at({ field: 'rate', row: i, column: j })}
                    aria-label={`Rate of line ${i + 1}, column ${j + 1}`}
                    placeholder={i + j === 0 ? '2 mL/L' : undefined}
                    value={r.cells[j] ?? ''}
                    onText={(text) => setCell(i, j, text)}
                    onPaste={(e) => {
                      const pasted = pasteIntoChart(chartOf(draft), i, j, e.clipboardData.getData('text'));
                      if (!pasted) return;
                      e.preventDefault();
                      if (pasted === 'tooLarge')
                        return announce(
                          `That is no feeding chart: ${MOST_CHART_ROWS} lines and ${MOST_CHART_COLUMNS} weeks at most.`,
                        );
                      onChange(withChart(draft, pasted));
                    }}
                  />
                </td>
              ))}
              <td>
                <IconButton
                  size="small"
                  aria-label={`Remove line ${i + 1}`}
                  onClick={() => onChange({ ...draft, rows: draft.rows.filter((__, k) => k !== i) })}
                >
                  <CloseIcon fontSize="small" />
                </IconButton>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

function Cell({ onText, ...rest }: ComponentProps<'input'> & { onText: (text: string) => void }) {
  return <input {...rest} onChange={(e) => onText(e.target.value)} />;
}

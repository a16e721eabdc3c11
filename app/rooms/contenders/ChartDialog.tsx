import CloseIcon from '@mui/icons-material/Close';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import IconButton from '@mui/material/IconButton';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { columnAfter, pasteIntoChart } from '~core/mixing/chartPaste';
import type { Product } from '~core/model/product';
import type { MeasureSystem } from '~core/quantity/measure';
import { type ChartDraft, chartOf, draftOfUses, usesOfDraft, withChart } from './chartDraft';
import type { UseInput } from './contendersForm';
import './chart.css';

interface Props {
  name: string;
  uses: readonly UseInput[];
  products: readonly Product[];
  measures: MeasureSystem;
  areaCm2: number | null;
  unitNoun: string;
  onClose: () => void;
  onMake: (uses: UseInput[]) => void;
}

/** A contender’s doses typed as makers print them: weeks or stages across, products down. */
export function ChartDialog({ name, uses, products, measures, areaCm2, unitNoun, onClose, onMake }: Props) {
  const [{ draft, fits }, setState] = useState(() => draftOfUses(uses, products));
  const [problem, setProblem] = useState('');
  const set = (next: ChartDraft) => {
    setState({ draft: next, fits });
    setProblem('');
  };
  const setColumn = (i: number, change: Partial<ChartDraft['columns'][number]>) =>
    set({ ...draft, columns: draft.columns.map((c, j) => (i === j ? { ...c, ...change } : c)) });
  const setRow = (i: number, change: Partial<ChartDraft['rows'][number]>) =>
    set({ ...draft, rows: draft.rows.map((r, j) => (i === j ? { ...r, ...change } : r)) });
  const chart = chartOf(draft);
  const make = () => {
    const made = usesOfDraft(draft, products, uses, measures, areaCm2);
    if (made.ok) onMake(made.value);
    else setProblem(made.error);
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="lg">
      <DialogTitle>Feeding chart{name && ` of ${name}`}</DialogTitle>
      <DialogContent>
        <p className="quiet" style={{ marginBottom: '0.8rem' }}>
          As the maker prints it: a rate in each week or stage, in any words (2 mL/L, ½ tsp/gal); empty where
          a product isn’t given. A block copied from a spreadsheet can be pasted into a cell.
        </p>
        {!fits && (
          <p className="note open" style={{ marginBottom: '0.8rem' }}>
            The doses as they stand don’t fit into one chart, so this one is empty. Using it puts it in their
            place.
          </p>
        )}
        <div className="line" style={{ marginBottom: '0.8rem' }}>
          <TextField
            size="small"
            label="Fed every, days"
            value={draft.everyDays}
            onChange={(e) => set({ ...draft, everyDays: e.target.value })}
            slotProps={{ htmlInput: { inputMode: 'decimal' } }}
            sx={{ width: 130 }}
          />
          <TextField
            size="small"
            label="Last day"
            value={draft.lastDay}
            onChange={(e) => set({ ...draft, lastDay: e.target.value })}
            slotProps={{ htmlInput: { inputMode: 'decimal' } }}
            sx={{ width: 110 }}
          />
          <TextField
            size="small"
            label={`Solution per ${unitNoun} and feed`}
            placeholder="0.6, or 1 gal"
            value={draft.solution}
            onChange={(e) => set({ ...draft, solution: e.target.value })}
            sx={{ width: 210 }}
          />
        </div>
        <div className="scroll-x">
          <table className="chart-grid">
            <thead>
              <tr>
                <th scope="col">week or stage</th>
                {draft.columns.map((c, i) => (
                  <th key={i} scope="col">
                    <input
                      aria-label={`Name of column ${i + 1}`}
                      value={c.stage}
                      onChange={(e) => setColumn(i, { stage: e.target.value })}
                    />
                  </th>
                ))}
                <th aria-label="remove" />
              </tr>
              <tr>
                <th scope="row">from day</th>
                {draft.columns.map((c, i) => (
                  <td key={i}>
                    <input
                      aria-label={`First day of column ${i + 1}`}
                      inputMode="decimal"
                      value={c.fromDay}
                      onChange={(e) => setColumn(i, { fromDay: e.target.value })}
                    />
                  </td>
                ))}
                <td />
              </tr>
              <tr>
                <th scope="row">strength, %</th>
                {draft.columns.map((c, i) => (
                  <td key={i}>
                    <input
                      aria-label={`Strength of column ${i + 1}`}
                      inputMode="decimal"
                      value={c.strength}
                      onChange={(e) => setColumn(i, { strength: e.target.value })}
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
                      slotProps={{
                        select: { displayEmpty: true },
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
                      <input
                        aria-label={`Rate of line ${i + 1}, column ${j + 1}`}
                        value={r.cells[j] ?? ''}
                        placeholder={i + j === 0 ? '2 mL/L' : undefined}
                        onChange={(e) =>
                          setRow(i, {
                            cells: draft.columns.map((__, k) =>
                              k === j ? e.target.value : (r.cells[k] ?? ''),
                            ),
                          })
                        }
                        onPaste={(e) => {
                          const pasted = pasteIntoChart(chart, i, j, e.clipboardData.getData('text'));
                          if (!pasted) return;
                          e.preventDefault();
                          set(withChart(draft, pasted));
                        }}
                      />
                    </td>
                  ))}
                  <td>
                    <IconButton
                      size="small"
                      aria-label={`Remove line ${i + 1}`}
                      onClick={() => set({ ...draft, rows: draft.rows.filter((__, k) => k !== i) })}
                    >
                      <CloseIcon fontSize="small" />
                    </IconButton>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
        <div className="line" style={{ marginTop: '0.6rem' }}>
          <Button
            size="small"
            color="secondary"
            onClick={() => set({ ...draft, rows: [...draft.rows, { productId: '', cells: [] }] })}
          >
            Add a product
          </Button>
          <Button
            size="small"
            color="secondary"
            onClick={() => {
              const next = columnAfter(chart.columns);
              const columns = [...chart.columns, next];
              const lastDay = Math.max(chart.lastDay, next.fromDay + 6);
              set(withChart(draft, { ...chart, columns, lastDay }));
            }}
          >
            Add a week or stage
          </Button>
          {draft.columns.length > 1 && (
            <Button
              size="small"
              color="inherit"
              onClick={() =>
                set({
                  ...draft,
                  columns: draft.columns.slice(0, -1),
                  rows: draft.rows.map((r) => ({ ...r, cells: r.cells.slice(0, draft.columns.length - 1) })),
                })
              }
            >
              Remove the last one
            </Button>
          )}
        </div>
        {problem && (
          <p role="alert" className="small" style={{ marginTop: '0.9rem', color: 'var(--porphyry)' }}>
            {problem}
          </p>
        )}
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Cancel
        </Button>
        <Button variant="contained" onClick={make}>
          Use this chart
        </Button>
      </DialogActions>
    </Dialog>
  );
}

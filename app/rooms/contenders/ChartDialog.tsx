import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import FormControlLabel from '@mui/material/FormControlLabel';
import TextField from '@mui/material/TextField';
import { useRef, useState } from 'react';
import { columnAfter } from '~core/mixing/chartPaste';
import type { Product } from '~core/model/product';
import type { MeasureSystem } from '~core/quantity/units';
import { DialogButtons } from '../../ui/DialogButtons';
import { ChartGrid, placeKey } from './ChartGrid';
import type { UnitShape } from './dose';
import { type ChartDraft, type ChartFault, chartOf, draftOfUses, usesOfDraft, withChart } from './chartDraft';
import type { UseInput } from './contendersForm';
import { EntryDialog } from '../../ui/EntryDialog';

interface Props {
  name: string;
  uses: readonly UseInput[];
  /** products nobody gets yet: what an empty chart proposes */
  unfed: readonly string[];
  products: readonly Product[];
  measures: MeasureSystem;
  unit: UnitShape;
  unitNoun: string;
  onClose: () => void;
  /** how many contenders get feed: the chart can be for all of them */
  fed: number;
  onMake: (uses: UseInput[], forAll: boolean) => void;
}

/** A contender’s doses typed as makers print them: weeks or stages across, products down. */
export function ChartDialog({
  name,
  uses,
  unfed,
  products,
  measures,
  unit,
  unitNoun,
  fed,
  onClose,
  onMake,
}: Props) {
  const [{ draft, fits }, setState] = useState(() => draftOfUses(uses, products, unfed));
  const [fault, setFault] = useState<ChartFault | null>(null);
  const [forAll, setForAll] = useState(false);
  const fields = useRef<HTMLDivElement>(null);
  const set = (next: ChartDraft) => {
    setState({ draft: next, fits });
    setFault(null);
  };
  const chart = chartOf(draft);
  const wrong = (field: 'everyDays' | 'lastDay' | 'solution') =>
    fault?.at.field === field ? { error: true, helperText: fault.message } : {};
  const make = () => {
    const made = usesOfDraft(draft, products, uses, measures, unit);
    if (made.ok) {
      onMake(made.value, forAll);
      return;
    }
    setFault(made.error);
    fields.current?.querySelector<HTMLElement>(`[data-place="${placeKey(made.error.at)}"]`)?.focus();
  };
  return (
    <EntryDialog onClose={onClose} maxWidth="lg">
      <DialogTitle>Feeding chart{name && ` of ${name}`}</DialogTitle>
      <DialogContent ref={fields}>
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
        <div className="inline-row" style={{ marginBottom: '0.8rem', alignItems: 'flex-start' }}>
          <TextField
            size="small"
            label="Fed every, days"
            value={draft.everyDays}
            {...wrong('everyDays')}
            onChange={(e) => set({ ...draft, everyDays: e.target.value })}
            slotProps={{ htmlInput: { inputMode: 'decimal', 'data-place': 'everyDays' } }}
            sx={{ width: 150 }}
          />
          <TextField
            size="small"
            label="Last day"
            value={draft.lastDay}
            {...wrong('lastDay')}
            onChange={(e) => set({ ...draft, lastDay: e.target.value })}
            slotProps={{ htmlInput: { inputMode: 'decimal', 'data-place': 'lastDay' } }}
            sx={{ width: 150 }}
          />
          <TextField
            size="small"
            label={`Solution per ${unitNoun} and feed`}
            placeholder="0.6, or 1 gal"
            value={draft.solution}
            {...wrong('solution')}
            onChange={(e) => set({ ...draft, solution: e.target.value })}
            slotProps={{ htmlInput: { 'data-place': 'solution' } }}
            sx={{ width: 260 }}
          />
        </div>
        <ChartGrid draft={draft} products={products} fault={fault?.at ?? null} onChange={set} />
        <div className="inline-row" style={{ marginTop: '0.6rem' }}>
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
        {fed > 1 && (
          <FormControlLabel
            control={<Checkbox checked={forAll} onChange={(_, on) => setForAll(on)} />}
            label={`The same chart for all ${fed} contenders that get something`}
          />
        )}
        {fault && (
          <p role="alert" className="small" style={{ marginTop: '0.9rem', color: 'var(--porphyry)' }}>
            {fault.message}
          </p>
        )}
      </DialogContent>
      <DialogButtons onCancel={onClose} label="Use this chart" onDo={make} />
    </EntryDialog>
  );
}

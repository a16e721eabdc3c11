import Button from '@mui/material/Button';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import type { Product } from '~core/model/product';
import { DialogButtons } from '../../ui/DialogButtons';
import { newUse } from './newContender';
import { type FactorInput, type LevelInput, combinations, factorProblem } from './factorial';
import { EntryDialog } from '../../ui/EntryDialog';

const starts: [label: string, factors: FactorInput[]][] = [
  [
    'base × additive',
    [
      { name: 'Base', levels: [level('water'), level('base feed')] },
      { name: 'Additive', levels: [level('none'), level('additive')] },
    ],
  ],
  [
    'product × dose',
    [
      { name: 'Product', levels: [level('first'), level('second')] },
      { name: 'Dose', levels: [level('half'), level('full')] },
    ],
  ],
  [
    'hormone × species',
    [
      { name: 'Hormone', levels: [level('none'), level('hormone')] },
      { name: 'Species', levels: [level('sage'), level('marigold')] },
    ],
  ],
];

function level(name: string): LevelInput {
  return { name, use: null };
}

interface Props {
  products: readonly Product[];
  onClose: () => void;
  onMake: (factors: FactorInput[]) => void;
}

/** Makes contenders of all combinations of two or more factors. */
export function FactorDialog({ products, onClose, onMake }: Props) {
  const [factors, setFactors] = useState<FactorInput[]>(starts[0]![1]);
  const [asked, setAsked] = useState(false);
  const problem = factorProblem(factors);
  const changeFactor = (i: number, change: (f: FactorInput) => FactorInput) =>
    setFactors(factors.map((f, j) => (i === j ? change(f) : f)));
  const changeLevel = (i: number, l: number, change: (x: LevelInput) => LevelInput) =>
    changeFactor(i, (f) => ({ ...f, levels: f.levels.map((x, j) => (l === j ? change(x) : x)) }));
  const made = problem ? [] : combinations(factors);
  return (
    <EntryDialog onClose={onClose} maxWidth="md">
      <DialogTitle>Contenders from factors</DialogTitle>
      <DialogContent>
        <p className="quiet" style={{ marginBottom: '0.8rem' }}>
          Every level of one factor meets every level of the other. The first level of each is the plain one.
        </p>
        <div className="inline-row" style={{ marginBottom: '0.9rem' }}>
          {starts.map(([label, f]) => (
            <Button
              key={label}
              size="small"
              variant="outlined"
              color="secondary"
              onClick={() => setFactors(f)}
            >
              {label}
            </Button>
          ))}
        </div>
        <div className="factors">
          {factors.map((f, i) => (
            <section key={i} className="stack tight" aria-label={`Factor ${i + 1}`}>
              <TextField
                label={`Factor ${i + 1}`}
                value={f.name}
                onChange={(e) => changeFactor(i, (x) => ({ ...x, name: e.target.value }))}
              />
              {f.levels.map((l, j) => (
                <div key={j} className="factor-level">
                  <TextField
                    label={`Level ${j + 1}`}
                    value={l.name}
                    onChange={(e) => changeLevel(i, j, (x) => ({ ...x, name: e.target.value }))}
                  />
                  <TextField
                    select
                    label="adds"
                    value={l.use?.productId ?? ''}
                    onChange={(e) => {
                      const product = products.find((p) => p.id === e.target.value);
                      changeLevel(i, j, (x) => ({ ...x, use: product ? newUse(product) : null }));
                    }}
                  >
                    <MenuItem value="">nothing</MenuItem>
                    {products.map((p) => (
                      <MenuItem key={p.id} value={p.id}>
                        {p.name}
                      </MenuItem>
                    ))}
                  </TextField>
                  {l.use && (
                    <TextField
                      label={`dose, ${l.use.unit}`}
                      value={l.use.amount}
                      slotProps={{ htmlInput: { inputMode: 'decimal' } }}
                      onChange={(e) =>
                        changeLevel(i, j, (x) => ({
                          ...x,
                          use: x.use && { ...x.use, amount: e.target.value },
                        }))
                      }
                    />
                  )}
                  <Button
                    size="small"
                    color="inherit"
                    aria-label={`Remove level ${j + 1} of factor ${i + 1}`}
                    onClick={() =>
                      changeFactor(i, (x) => ({ ...x, levels: x.levels.filter((_, n) => n !== j) }))
                    }
                  >
                    Remove
                  </Button>
                </div>
              ))}
              <div>
                <Button
                  size="small"
                  color="secondary"
                  onClick={() => changeFactor(i, (x) => ({ ...x, levels: [...x.levels, level('')] }))}
                >
                  Add a level
                </Button>
              </div>
            </section>
          ))}
        </div>
        {made.length > 0 && (
          <p className="small" style={{ marginTop: '0.9rem' }}>
            <span className="quiet">Makes {made.length}:</span> {made.map((t) => t.name).join(', ')}
          </p>
        )}
        {asked && problem && (
          <p role="alert" className="small" style={{ marginTop: '0.9rem', color: 'var(--porphyry)' }}>
            {problem}
          </p>
        )}
      </DialogContent>
      <DialogButtons
        onCancel={onClose}
        label="Make the contenders"
        onDo={() => (problem ? setAsked(true) : onMake(factors))}
      />
    </EntryDialog>
  );
}

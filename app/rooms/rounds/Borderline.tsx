import IconButton from '@mui/material/IconButton';
import AddIcon from '@mui/icons-material/Add';
import RemoveIcon from '@mui/icons-material/Remove';

interface Props {
  n: number;
  most: number;
  onChange: (n: number) => void;
}

/** Borderline cases beside k of n: kept apart, so that the finding can be shown both ways. */
export function Borderline({ n, most, onChange }: Props) {
  return (
    <div className="pad-row" role="group" aria-label="Borderline cases">
      <span>Borderline, beside these</span>
      <span className="inline-row" style={{ gap: '0.2rem' }}>
        <IconButton aria-label="One borderline less" disabled={n === 0} onClick={() => onChange(n - 1)}>
          <RemoveIcon fontSize="small" />
        </IconButton>
        <output className="num" aria-label="Borderline">
          {n}
        </output>
        <IconButton aria-label="One borderline more" disabled={n >= most} onClick={() => onChange(n + 1)}>
          <AddIcon fontSize="small" />
        </IconButton>
      </span>
    </div>
  );
}

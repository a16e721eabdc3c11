import IconButton from '@mui/material/IconButton';
import { AddIcon, RemoveIcon } from '../../ui/icons';
import { useState } from 'react';

interface Props {
  /** what is counted apart, as in “One borderline more” */
  what: 'borderline' | 'off type';
  n: number;
  most: number;
  onChange: (n: number) => void;
}

const words = {
  borderline: { group: 'Borderline cases', row: 'Borderline, beside these', figure: 'Borderline' },
  'off type': { group: 'Off types', row: 'Off type, of these', figure: 'Off type' },
} as const;

function CountedApart({ what, n, most, onChange }: Props) {
  const { group, row, figure } = words[what];
  return (
    <div className="pad-row" role="group" aria-label={group}>
      <span>{row}</span>
      <span className="inline-row" style={{ gap: '0.2rem' }}>
        <IconButton aria-label={`One ${what} less`} disabled={n === 0} onClick={() => onChange(n - 1)}>
          <RemoveIcon fontSize="small" />
        </IconButton>
        <output className="num" aria-label={figure}>
          {n}
        </output>
        <IconButton aria-label={`One ${what} more`} disabled={n >= most} onClick={() => onChange(n + 1)}>
          <AddIcon fontSize="small" />
        </IconButton>
      </span>
    </div>
  );
}

interface BothProps {
  borderline: number;
  offType: number;
  /** of how many */
  most: number;
  onBorderline: (n: number) => void;
  onOffType: (n: number) => void;
}

/** Cases of k of n that are kept apart, so that the finding can be shown both ways; off types when asked for. */
export function CountsApart({ borderline, offType, most, onBorderline, onOffType }: BothProps) {
  const [asked, setAsked] = useState(false);
  return (
    <>
      <CountedApart what="borderline" n={borderline} most={most} onChange={onBorderline} />
      {asked ? (
        <CountedApart what="off type" n={offType} most={most} onChange={onOffType} />
      ) : (
        <button type="button" className="pad-row" onClick={() => setAsked(true)}>
          <span>Off types …</span>
        </button>
      )}
    </>
  );
}

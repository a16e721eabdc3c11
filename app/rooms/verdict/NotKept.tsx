import Button from '@mui/material/Button';

/** Where the store refused what is shown: that it isn’t kept, and how to keep it. */
export function NotKept({ again }: { again: (() => void) | null }) {
  if (!again) return null;
  return (
    <p className="note bad no-print" role="status">
      What you changed here isn’t kept.{' '}
      <Button size="small" color="secondary" onClick={again}>
        Keep it now
      </Button>
    </p>
  );
}

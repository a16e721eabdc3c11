import Button from '@mui/material/Button';
import type { ReactNode } from 'react';

/** What is said once a case is answered, and the way on. */
export function Told({
  title,
  children,
  onNext,
}: {
  title: string;
  children: ReactNode;
  onNext: () => void;
}) {
  return (
    <section className="eye-told" aria-live="polite">
      <h2>{title}</h2>
      {children}
      <p style={{ marginTop: '0.8rem' }}>
        <Button variant="contained" autoFocus onClick={onNext}>
          Next case ↵
        </Button>
      </p>
    </section>
  );
}

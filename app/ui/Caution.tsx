import { WarningAmberIcon } from './icons';
import type { ReactNode } from 'react';

/** What can hurt someone, said where the act is. */
export function Caution({ children }: { children: ReactNode }) {
  return (
    <div className="caution" role="note">
      <WarningAmberIcon fontSize="small" />
      <div>{children}</div>
    </div>
  );
}

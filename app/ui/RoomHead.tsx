import type { ReactNode } from 'react';
import './RoomHead.css';

/** A room's heading: what it is, one line on what goes here, and its actions. */
export function RoomHead({
  title,
  children,
  actions,
}: {
  title: ReactNode;
  children?: ReactNode;
  actions?: ReactNode;
}) {
  return (
    <div className="room-head">
      <div className="row">
        <div>
          <h1>{title}</h1>
          {children && <p>{children}</p>}
        </div>
        {actions && <div className="inline-row no-print">{actions}</div>}
      </div>
    </div>
  );
}

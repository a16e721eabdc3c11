import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { BenchSwitch } from './BenchSwitch';
import './Head.css';

/** The band at the top: the house's mark, what one is looking at, and which bench it stands on. */
export function Head({ title, end }: { title?: ReactNode; end?: ReactNode }) {
  return (
    <header className="head no-print">
      <a className="skip" href="#room">
        To the room
      </a>
      <Link to="/" className="brand">
        <img src="/icon.svg" alt="" width="20" height="20" />
        Palazzo
      </Link>
      {title && <div className="title">{title}</div>}
      <div className="end">
        {end}
        <BenchSwitch />
      </div>
    </header>
  );
}

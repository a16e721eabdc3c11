import IconButton from '@mui/material/IconButton';
import { HelpIcon, SearchIcon } from './icons';
import { type ReactNode, Suspense, lazy, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { Link, useLocation } from 'react-router';
import { BenchSwitch } from './BenchSwitch';
import type { RoomOfTrial } from './palette/entries';
import { isTyping } from './keys';
import './Head.css';

/** Loaded when it is asked for. */
const Palette = lazy(() => import('./palette/Palette').then((m) => ({ default: m.Palette })));

const Guide = lazy(() => import('./guide/GuideDialog').then((m) => ({ default: m.GuideDialog })));

/** What stands open is finished first. */
const inDialog = (e: KeyboardEvent): boolean =>
  (e.target as HTMLElement | null)?.closest('[role="dialog"]') != null;

interface Props {
  title?: ReactNode;
  end?: ReactNode;
  /** rooms of the trial one is in */
  rooms?: readonly RoomOfTrial[];
}

const none: readonly RoomOfTrial[] = [];

/** The band at the top: the house's mark, what one is looking at, and which bench it stands on. */
export function Head({ title, end, rooms = none }: Props) {
  const [finding, setFinding] = useState(false);
  const [asking, setAsking] = useState(false);
  const { pathname } = useLocation();
  useHotkeys('mod+k', () => setFinding(true), {
    preventDefault: true,
    enableOnFormTags: true,
    ignoreEventWhen: inDialog,
  });
  // The key as it comes out, whatever the layout.
  useHotkeys('?', () => setAsking(true), { useKey: true, ignoreModifiers: true, ignoreEventWhen: isTyping });
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
        <IconButton aria-label="Go to …" title="Go to … (Ctrl K)" onClick={() => setFinding(true)}>
          <SearchIcon fontSize="small" />
        </IconButton>
        <IconButton
          aria-label="What this page is for"
          title="What this page is for (?)"
          onClick={() => setAsking(true)}
        >
          <HelpIcon fontSize="small" />
        </IconButton>
        <BenchSwitch />
      </div>
      {asking && (
        <Suspense>
          <Guide path={pathname} onClose={() => setAsking(false)} />
        </Suspense>
      )}
      {finding && (
        <Suspense>
          <Palette rooms={rooms} onClose={() => setFinding(false)} />
        </Suspense>
      )}
    </header>
  );
}

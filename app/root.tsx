import '@fontsource-variable/fraunces/wght.css';
import '@fontsource-variable/source-sans-3/wght.css';
import '@fontsource/ibm-plex-mono/latin-400.css';
import '@fontsource/ibm-plex-mono/latin-500.css';
import 'virtual:palazzo-colours.css';
import './ui/base.css';
import './ui/print.css';
import './form/fields.css';
import './ui/RoomHead.css';
import './ui/columns.css';
import './ui/ledger.css';
import './ui/notes.css';
import { type ReactNode, useEffect } from 'react';
import {
  Links,
  Meta,
  Outlet,
  Scripts,
  ScrollRestoration,
  isRouteErrorResponse,
  useLocation,
  useRouteError,
} from 'react-router';
import { bench } from './store/bench';
import { REMIND_KEY } from './bench/remindKey';
import { PalazzoTheme } from './ui/theme';
import { applyRegion } from './ui/region';
import { NewVersion } from './ui/NewVersion';
import { LeaveDialog } from './form/LeaveDialog';
import { NoticeProvider } from './ui/Notices';

// Before anything is written, and while the page is still put together: on the server there is no device to ask.
if (typeof localStorage !== 'undefined') {
  applyRegion();
  // What can't be opened says so where it is needed.
  bench().catch(() => undefined);
}

/** The page may not make code of text; the library that checks what is read isn't to try, which costs time and is reported. */
const NOT_BY_EVAL = 'globalThis.__zod_globalConfig={jitless:true}';

export function Layout({ children }: { children: ReactNode }) {
  return (
    <html lang="en">
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <meta name="palazzo-bench" content="own" />
        <meta name="theme-color" content="#fffbf3" />
        <script dangerouslySetInnerHTML={{ __html: NOT_BY_EVAL }} />
        <link rel="icon" href="/icon.svg" type="image/svg+xml" />
        <link rel="apple-touch-icon" href="/icon-192.png" />
        <link rel="manifest" href="/manifest.webmanifest" />
        <Meta />
        <Links />
      </head>
      <body>
        {children}
        <ScrollRestoration />
        <Scripts />
      </body>
    </html>
  );
}

export const meta = () => [{ title: 'Palazzo' }];

export default function App() {
  useEffect(() => {
    // Loaded only where somebody asked to be reminded.
    if (localStorage.getItem(REMIND_KEY)) void import('./bench/reminders').then((m) => m.keepReminding());
  }, []);
  useEffect(() => exchangingWherePaired(), []);
  useEffect(() => keepingFolder(), []);
  return page;
}

/** Which address is drawn stands at the page: whoever drives it from outside can wait for it. */
function AddressDrawn() {
  const { pathname, search } = useLocation();
  useEffect(() => {
    document.documentElement.dataset['at'] = pathname + search;
  }, [pathname, search]);
  return null;
}

/** One and the same: what is under way in a room doesn't draw the house anew. */
const page = (
  <PalazzoTheme>
    <NoticeProvider>
      <NewVersion />
      <LeaveDialog />
      <AddressDrawn />
      <Outlet />
    </NoticeProvider>
  </PalazzoTheme>
);

/** Only a page served with a letter-box exchanges anything; what it takes is loaded there alone. */
function exchangingWherePaired(): () => void {
  let stop = () => {};
  let gone = false;
  if (location.protocol === 'https:')
    void Promise.all([import('./lan/keepExchanging'), import('./bench/devices/otherLetters')]).then(
      ([keep, other]) => {
        if (gone) return;
        const stops = [keep.keepExchanging(), other.takeOtherLetters()];
        stop = () => stops.forEach((s) => s());
      },
    );
  return () => {
    gone = true;
    stop();
  };
}

/** Only where a folder can be written at all is anything of it loaded. */
function keepingFolder(): () => void {
  let stop = () => {};
  let gone = false;
  // Long after the first screen: what it takes to write a backup isn't in its way.
  const later = setTimeout(() => {
    if ('showDirectoryPicker' in window)
      void import('./store/folder').then((m) => {
        if (!gone) stop = m.keepFolderUpToDate();
      });
  }, 8000);
  return () => {
    gone = true;
    clearTimeout(later);
    stop();
  };
}

export function HydrateFallback() {
  return (
    <main className="page-message" aria-busy="true">
      <p>Opening the bench …</p>
    </main>
  );
}

export function ErrorBoundary() {
  const error = useRouteError();
  const text = isRouteErrorResponse(error)
    ? String(error.data || 'This page isn’t here.')
    : error instanceof Error
      ? error.message
      : String(error);
  return (
    <main className="page-message">
      <h1>{isRouteErrorResponse(error) && error.status === 404 ? 'Nothing here' : 'Something went wrong'}</h1>
      <p>{text}</p>
      <p>
        Values that were kept before stay as they are; a text that wasn’t saved yet is lost.{' '}
        <a href="/">Back to Today</a>
      </p>
    </main>
  );
}

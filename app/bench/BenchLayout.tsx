import { Outlet } from 'react-router';
import { Head } from '../ui/Head';
import { useOtherTabs } from '../ui/useOtherTabs';
import { BenchNav } from './BenchNav';
import { titled } from '../ui/title';

const titles: Record<string, string> = {
  '/': 'Today',
  '/trials/new': 'A new trial',
  '/library': 'Library',
  '/library/kit': 'A kit',
  '/library/new': 'A new product',
  '/calculator': 'Calculator',
  '/instruments': 'Instruments',
  '/standings': 'Standings',
  '/data': 'Your data',
  '/devices': 'Devices',
  '/settings': 'Settings',
  '/season': 'Season',
  '/eye': 'The eye',
  '/table': 'Read a table',
};

/** What of the bench is open. */
export const meta = ({ location }: { location: { pathname: string } }) =>
  titled(titles[location.pathname.replace(/(.)\/$/, '$1')] ?? 'Library');

/** The frame of everything that isn't inside a trial. */
export default function BenchLayout() {
  useOtherTabs();
  return (
    <>
      <Head />
      <div className="frame">
        <BenchNav />
        <main className="room" id="room">
          <Outlet />
        </main>
      </div>
    </>
  );
}

import { Outlet } from 'react-router';
import { Head } from '../ui/Head';
import { useOtherTabs } from '../ui/useOtherTabs';
import { BenchNav } from '../ui/RoomNav';

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

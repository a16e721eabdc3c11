import { useEffect, useRef } from 'react';
import { NavLink, useLocation } from 'react-router';
import '../rooms/RoomNav.css';
import { benchPages } from '../ui/benchPages';

/** What a phone's strip has room for; Devices is reached from Data there. */
const onPhones = benchPages.filter((r) => r.to !== '/devices');

/** Today, Library, Standings, Calculator, Instruments, Data, Devices: the rooms that belong to no trial. */
export function BenchNav() {
  const strip = useRef<HTMLElement>(null);
  const { pathname } = useLocation();
  // One line of pages: the one that is open is in sight.
  useEffect(() => {
    const here = strip.current?.querySelector<HTMLElement>('[aria-current]');
    if (here)
      strip.current!.scrollLeft = here.offsetLeft - (strip.current!.clientWidth - here.offsetWidth) / 2;
  }, [pathname]);
  return (
    <>
      <nav className="room-nav no-print" aria-label="Bench">
        <ul>
          {benchPages.map((r) => (
            <li key={r.to}>
              <NavLink to={r.to} end={r.to === '/'}>
                {r.name}
              </NavLink>
            </li>
          ))}
        </ul>
      </nav>
      <nav ref={strip} className="strip of-pages no-print" aria-label="Bench, small screens">
        {onPhones.map((r) => (
          <NavLink key={r.to} to={r.to} end={r.to === '/'}>
            {r.name}
          </NavLink>
        ))}
      </nav>
    </>
  );
}

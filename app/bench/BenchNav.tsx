import { NavLink } from 'react-router';
import '../rooms/RoomNav.css';
import { benchPages } from '../ui/benchPages';

/** What a phone's strip has room for; Devices is reached from Data there. */
const onPhones = benchPages.filter((r) => r.to !== '/devices');

/** Today, Library, Standings, Calculator, Instruments, Data, Devices: the rooms that belong to no trial. */
export function BenchNav() {
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
      <nav className="strip of-four no-print" aria-label="Bench, small screens">
        {onPhones.map((r) => (
          <NavLink key={r.to} to={r.to} end={r.to === '/'}>
            {r.name}
          </NavLink>
        ))}
      </nav>
    </>
  );
}

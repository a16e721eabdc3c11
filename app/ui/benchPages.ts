/** A page of the bench that belongs to no trial. */
interface BenchPage {
  to: string;
  name: string;
}

/** The pages of the bench, in the order of its list. */
export const benchPages: readonly BenchPage[] = [
  { to: '/', name: 'Today' },
  { to: '/library', name: 'Library' },
  { to: '/table', name: 'Read a table' },
  { to: '/standings', name: 'Standings' },
  { to: '/season', name: 'Season' },
  { to: '/eye', name: 'The eye' },
  { to: '/calculator', name: 'Calculator' },
  { to: '/instruments', name: 'Instruments' },
  { to: '/data', name: 'Data' },
  { to: '/devices', name: 'Devices' },
  { to: '/settings', name: 'Settings' },
];

import type { Driver } from './instrument';

/** Real instruments that can be opened in place of the one at hand. */
export function OtherInstruments({
  others,
  fault,
  onOpen,
}: {
  others: readonly Driver[];
  fault: string;
  onOpen: (driver: Driver) => Promise<void>;
}) {
  if (others.length === 0) return null;
  return (
    <p className="small" style={{ margin: '0.4rem 0' }}>
      {others.map((d) => (
        <button key={d.id} type="button" className="link" onClick={() => void onOpen(d)}>
          {d.name} …
        </button>
      ))}{' '}
      {fault && <span role="alert">{fault}</span>}
    </p>
  );
}

import { memo } from 'react';
import { RoundRows } from './RoundRows';
import { useNamedTraits } from './useNamedTraits';

/** The planned rounds. */
export const RoundsSection = memo(function RoundsSection({ locked }: { locked: boolean }) {
  const named = useNamedTraits();
  return (
    <section className="section">
      <h2 style={{ marginBottom: '0.9rem' }}>Rounds</h2>
      <RoundRows traits={named} locked={locked} />
    </section>
  );
});

import { memo } from 'react';
import { RoundRows } from './RoundRows';
import { useNamedTraits } from './useNamedTraits';

/** The planned rounds. */
export const RoundsSection = memo(function RoundsSection({ locked }: { locked: boolean }) {
  const named = useNamedTraits();
  return (
    <section className="section">
      <h2>Rounds</h2>
      <p className="quiet">
        Fixed days on which every unit is visited. All contenders on the same day, in the same light.
      </p>
      <RoundRows traits={named} locked={locked} />
    </section>
  );
});

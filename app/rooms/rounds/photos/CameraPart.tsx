import Button from '@mui/material/Button';
import { useState } from 'react';
import type { UnitId } from '~core/model/ids';
import type { Unit } from '~core/model/plan';
import { unitNamedIn } from '~core/plan/matchUnit';
import { LivePicture } from '../../../instruments/LivePicture';
import { useCamera } from '../../../instruments/useCamera';
import { useCodeReader } from '../../../instruments/useCodeReader';
import { PickOne } from '../../../ui/PickOne';

interface Props {
  units: readonly Unit[];
  lastOf: (unitId: UnitId) => string | undefined;
  onTaken: (bytes: Uint8Array<ArrayBuffer>, unitId: UnitId | null) => void;
}

/** What was asked for stands where one looks: on a phone the picture would open under the fold. */
const inSight = (e: HTMLElement | null) => e?.scrollIntoView({ block: 'start' });

/**
 * The live camera picture with the unit’s last photo half-transparent over it, so that framing repeats. A label held
 * before it opens its unit.
 */
export function CameraPart({ units, lastOf, onTaken }: Props) {
  const [unitId, setUnitId] = useState<UnitId | null>(units[0]?.id ?? null);
  const [seen, setSeen] = useState('');
  const at = units.findIndex((u) => u.id === unitId);
  const view = useCamera(() => ({
    code: units[at]?.code ?? '',
    cover: 0.25 + 0.05 * (at % 8),
    seed: at + 1,
  }));
  useCodeReader(view.camera, (text) => {
    const unit = unitNamedIn(units, text);
    if (unit && unit.code !== seen) {
      setSeen(unit.code);
      setUnitId(unit.id);
    }
  });
  const take = async () => {
    const bytes = await view.camera.current?.take();
    if (!bytes) return;
    onTaken(bytes, unitId);
    setUnitId(units[(at + 1) % units.length]?.id ?? null);
  };
  const last = unitId ? lastOf(unitId) : undefined;
  return (
    <div className="stack camera-part" style={{ marginTop: '0.8rem' }} ref={inSight}>
      <LivePicture view={view}>
        {last && <img src={last} alt="The last photo of this unit, half-transparent" />}
      </LivePicture>
      {(view.fault === '' || view.simulated) && (
        <div className="inline-row">
          <PickOne
            label="Unit"
            value={unitId ?? ''}
            options={units.map((u) => [u.id, u.code] as const)}
            onPick={setUnitId}
            sx={{ minWidth: 140 }}
            helperText={seen ? `label of ${seen} read` : 'hold its label before the camera, or choose'}
          />
          <Button variant="contained" onClick={() => void take()}>
            Take the photo
          </Button>
        </div>
      )}
    </div>
  );
}

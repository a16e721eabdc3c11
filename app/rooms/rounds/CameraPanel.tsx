import Button from '@mui/material/Button';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import type { UnitId } from '~core/model/ids';
import type { Unit } from '~core/model/plan';
import { unitNamedIn } from '~core/plan/matchUnit';
import { type Camera, openCamera } from '../../instruments/camera';
import { PickOne } from '../../ui/PickOne';
import { readCodeInFrame } from '../../workers/photos';

interface Props {
  units: readonly Unit[];
  lastOf: (unitId: UnitId) => string | undefined;
  onTaken: (bytes: Uint8Array<ArrayBuffer>, unitId: UnitId | null) => void;
}

/** How often a frame is looked at for a label. */
const LOOK_MS = 400;

/**
 * The live camera picture with the unit’s last photo half-transparent over it, so that framing repeats. A label held
 * before it opens its unit.
 */
export function CameraPanel({ units, lastOf, onTaken }: Props) {
  const video = useRef<HTMLVideoElement>(null);
  const camera = useRef<Camera | null>(null);
  const [fault, setFault] = useState('');
  const [unitId, setUnitId] = useState<UnitId | null>(units[0]?.id ?? null);
  const [seen, setSeen] = useState('');
  const look = useEffectEvent(async () => {
    const frame = camera.current?.frame();
    if (!frame) return;
    const text = await readCodeInFrame(frame);
    const unit = text ? unitNamedIn(units, text) : undefined;
    if (unit && unit.code !== seen) {
      setSeen(unit.code);
      setUnitId(unit.id);
    }
  });
  useEffect(() => {
    let gone = false;
    let timer: ReturnType<typeof setInterval> | undefined;
    void openCamera(video.current!).then((opened) => {
      if (!opened.ok) return setFault(opened.error);
      if (gone) return opened.value.close();
      camera.current = opened.value;
      timer = setInterval(() => void look(), LOOK_MS);
    });
    return () => {
      gone = true;
      clearInterval(timer);
      camera.current?.close();
      camera.current = null;
    };
  }, []);
  const take = async () => {
    const bytes = await camera.current?.take();
    if (!bytes) return;
    onTaken(bytes, unitId);
    const at = units.findIndex((u) => u.id === unitId);
    setUnitId(units[(at + 1) % units.length]?.id ?? null);
  };
  if (fault)
    return (
      <p role="alert" style={{ color: 'var(--porphyry)' }}>
        {fault}
      </p>
    );
  const last = unitId ? lastOf(unitId) : undefined;
  return (
    <div className="stack" style={{ marginTop: '0.8rem' }}>
      <div className="live">
        <video ref={video} muted playsInline aria-label="Live picture" />
        {last && <img src={last} alt="The last photo of this unit, half-transparent" />}
      </div>
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
    </div>
  );
}

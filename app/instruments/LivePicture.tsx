import Button from '@mui/material/Button';
import type { ReactNode } from 'react';
import type { useCamera } from './useCamera';
import './LivePicture.css';

/** The live picture of a camera, with what lies over it; why there is none, and the stand-in in its place. */
export function LivePicture({
  view: { video, canvas, fault, simulated, simulate },
  children,
}: {
  view: ReturnType<typeof useCamera>;
  children?: ReactNode;
}) {
  return (
    <>
      {fault && !simulated && (
        <p role="alert" style={{ color: 'var(--porphyry)' }}>
          {fault}{' '}
          <Button size="small" color="secondary" onClick={simulate}>
            Try it with the simulated camera
          </Button>
        </p>
      )}
      <div className="live" hidden={fault !== '' && !simulated}>
        <video ref={video} muted playsInline aria-label="Live picture" hidden={simulated} />
        <canvas ref={canvas} aria-label="Picture of the simulated camera" hidden={!simulated} />
        {children}
      </div>
      {simulated && <p className="small quiet">Simulated camera: plants drawn, label and all.</p>}
    </>
  );
}

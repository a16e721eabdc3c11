import { type RefObject, useEffect, useRef, useState } from 'react';
import { type Camera, openCamera } from './camera';
import { type Stand, simulatedCamera } from './simulatedCamera';

/**
 * The camera a panel looks through: the device’s, or the stand-in where the person takes that one.
 *
 * @param stand what the stand-in sees; asked anew for each frame
 */
export function useCamera(stand: () => Stand): {
  video: RefObject<HTMLVideoElement | null>;
  canvas: RefObject<HTMLCanvasElement | null>;
  camera: RefObject<Camera | null>;
  /** why the device’s camera can’t be used; empty while it can */
  fault: string;
  simulated: boolean;
  simulate: () => void;
} {
  const video = useRef<HTMLVideoElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const camera = useRef<Camera | null>(null);
  const seen = useRef(stand);
  const [fault, setFault] = useState('');
  const [simulated, setSimulated] = useState(false);
  useEffect(() => {
    seen.current = stand;
  });
  useEffect(() => {
    let gone = false;
    if (simulated) camera.current = simulatedCamera(canvas.current!, () => seen.current());
    else
      void openCamera(video.current!).then((opened) => {
        if (!opened.ok) return setFault(opened.error);
        if (gone) return opened.value.close();
        camera.current = opened.value;
      });
    return () => {
      gone = true;
      camera.current?.close();
      camera.current = null;
    };
  }, [simulated]);
  return { video, canvas, camera, fault, simulated, simulate: () => setSimulated(true) };
}

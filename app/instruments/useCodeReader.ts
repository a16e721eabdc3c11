import { type RefObject, useEffect, useEffectEvent } from 'react';
import { readCodeInFrame } from '../workers/photos';
import type { Camera } from './camera';

/** How often a frame is looked at for a label. */
const LOOK_MS = 400;

/** Reads labels held before a camera, one frame after the other, in a worker. */
export function useCodeReader(camera: RefObject<Camera | null>, onText: (text: string) => void): void {
  const look = useEffectEvent(async () => {
    const frame = camera.current?.frame();
    const text = frame && (await readCodeInFrame(frame));
    if (text) onText(text);
  });
  useEffect(() => {
    const timer = setInterval(() => void look(), LOOK_MS);
    return () => clearInterval(timer);
  }, []);
}

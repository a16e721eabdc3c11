import { type Result, err, ok } from '~core/model/result';

/** A camera that is open. */
export interface Camera {
  /** a reduced frame to look for labels in; null before the first picture */
  frame: () => ImageData | null;
  /** a whole picture, as JPEG */
  take: () => Promise<Uint8Array<ArrayBuffer> | null>;
  close: () => void;
}

const FRAME_WIDTH = 640;

/** Opens the device’s camera, the one that looks away from the user, and shows it in a video element. */
export async function openCamera(video: HTMLVideoElement): Promise<Result<Camera, string>> {
  if (!('mediaDevices' in navigator)) {
    return err('This browser gives no camera here: it does on https and on this machine’s own address.');
  }
  let stream: MediaStream;
  try {
    stream = await navigator.mediaDevices.getUserMedia({
      video: { facingMode: 'environment', width: { ideal: 1920 }, height: { ideal: 1440 } },
    });
  } catch (e) {
    return err(
      (e as Error).name === 'NotAllowedError'
        ? 'The camera is blocked for this page: allow it in the browser’s address line.'
        : 'No camera was found. Photos can be chosen as files.',
    );
  }
  video.srcObject = stream;
  await video.play();
  const drawn = (width: number) => {
    if (video.videoWidth === 0) return null;
    const canvas = document.createElement('canvas');
    canvas.width = Math.min(width, video.videoWidth);
    canvas.height = Math.round((canvas.width * video.videoHeight) / video.videoWidth);
    canvas.getContext('2d')!.drawImage(video, 0, 0, canvas.width, canvas.height);
    return canvas;
  };
  return ok({
    frame: () => {
      const canvas = drawn(FRAME_WIDTH);
      return canvas && canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
    },
    take: async () => {
      const canvas = drawn(Infinity);
      if (!canvas) return null;
      const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', 0.94));
      return blob && new Uint8Array(await blob.arrayBuffer());
    },
    close: () => {
      for (const track of stream.getTracks()) track.stop();
      video.srcObject = null;
    },
  });
}

import QRCode from 'qrcode';
import { useEffect, useState } from 'react';

/** A text as a code to be scanned; nothing where it is too long for one. */
export function QrCode({ text, label, size = 240 }: { text: string; label: string; size?: number }) {
  const [made, setMade] = useState<{ text: string; url: string } | null>(null);
  useEffect(() => {
    let gone = false;
    QRCode.toDataURL(text, { errorCorrectionLevel: 'L', margin: 2, width: 320 }).then(
      (url) => !gone && setMade({ text, url }),
      () => undefined,
    );
    return () => {
      gone = true;
    };
  }, [text]);
  return made?.text === text ? <img src={made.url} width={size} height={size} alt={label} /> : null;
}

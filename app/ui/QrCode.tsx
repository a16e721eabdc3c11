import QRCode from 'qrcode';
import { useEffect, useState } from 'react';

/** The least a phone's camera tells apart on a screen held before it, CSS pixels a square (common practice). */
const SQUARE = 4;

/** A text as a code to be scanned, the larger the more is in it; nothing where it is too long for one. */
export function QrCode({ text, label, size = 240 }: { text: string; label: string; size?: number }) {
  const [made, setMade] = useState<{ text: string; url: string; squares: number } | null>(null);
  useEffect(() => {
    let gone = false;
    const how = { errorCorrectionLevel: 'L', margin: 2 } as const;
    QRCode.toDataURL(text, { ...how, scale: 2 * SQUARE }).then(
      (url) => !gone && setMade({ text, url, squares: QRCode.create(text, how).modules.size + 4 }),
      () => undefined,
    );
    return () => {
      gone = true;
    };
  }, [text]);
  if (made?.text !== text) return null;
  const wide = Math.max(size, SQUARE * made.squares);
  return <img src={made.url} width={wide} alt={label} style={{ maxWidth: '100%', height: 'auto' }} />;
}

// What is printed when the local network is served: where, whose certificate, and the code of the first device.
import QRCode from 'qrcode';

/** @returns the lines for the terminal */
export async function sayPairing({ lan, port, code }) {
  const at = (host) => `https://${host}:${port}`;
  const addresses = [...lan.addresses.map(at), at('localhost')];
  const link = `${addresses[0]}/pair#${code}`;
  const qr = await QRCode.toString(link, { type: 'terminal', small: true, errorCorrectionLevel: 'L' });
  return [
    `Palazzo stands in this network at ${addresses.join(' and ')}. Ctrl+C ends it.`,
    '',
    'A browser warns once, because the certificate is this bench’s own. Its fingerprint (SHA-256):',
    lan.fingerprint,
    '',
    `The first device pairs with the code ${code}, once:`,
    qr.trimEnd(),
    link,
    'It pairs all others, from Data. Nobody unpaired can read or send anything.',
  ].join('\n');
}

/** The bytes of a base64 data URI. (Fetching it would need a looser Content-Security-Policy.) */
export const bytesOf = (dataUri: string): Uint8Array<ArrayBuffer> =>
  Uint8Array.from(atob(dataUri.split(',')[1]!), (c) => c.charCodeAt(0));

/** Hands a file to the person at the screen. */
export function download(data: Blob, name: string): void {
  const url = URL.createObjectURL(data);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  document.body.append(link);
  link.click();
  link.remove();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

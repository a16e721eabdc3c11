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

/** Whether the system's own share sheet takes files here: phones and tablets mostly. */
export function canShareFiles(): boolean {
  const file = new File(['x'], 'x.zip', { type: 'application/zip' });
  return typeof navigator.canShare === 'function' && navigator.canShare({ files: [file] });
}

/** Hands a file to another app or device through the share sheet; who closes the sheet shared nothing. */
export async function shareFile(data: Blob, name: string): Promise<void> {
  try {
    await navigator.share({ files: [new File([data], name, { type: data.type })] });
  } catch (e) {
    if ((e as Error).name !== 'AbortError') throw e;
  }
}

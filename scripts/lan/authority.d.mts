export interface Certificate {
  key: string;
  cert: string;
  authority: string;
  fingerprint: string;
  addresses: string[];
}
export function certificate(options?: {
  folder?: string;
  addresses?: string[];
  now?: Date;
}): Promise<Certificate>;
export function fingerprintOf(pem: string): string;
export function lanAddresses(): string[];
export function knownDevices(folder?: string): object[];
export function keepDevices(devices: object[], folder?: string): void;

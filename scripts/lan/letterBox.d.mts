export type Role = 'log' | 'taste' | 'help';
export interface Device {
  id: string;
  name: string;
  role: Role;
  by: string | null;
  invite: string;
  seen: number;
}
export interface Limits {
  letter: number;
  bytes: number;
  letters: number;
  devices: number;
  wrongCodes: number;
  wrongInAll: number;
  quietMs: number;
  codeMs: number;
}
export interface Letter {
  id: string;
  from: string;
  role: Role;
  to: string;
  bytes: Uint8Array;
}
export interface Shelf {
  all(): Letter[];
  put(letter: Letter): void;
  remove(id: string): void;
}
export class Refusal extends Error {
  status: number;
}
export class LetterBox {
  constructor(options?: {
    now?: () => number;
    limits?: Partial<Limits>;
    known?: object[];
    onDevices?: (devices: object[]) => void;
    shelf?: Shelf;
  });
  devices: Map<string, Device>;
  invite(role?: Role, by?: string | null): { code: string; id: string };
  pair(
    code: string,
    name: string,
    from?: string,
  ): { device: string; token: string; role: Role; host: string | null };
  who(token: string): Device;
  peersOf(device: Device): Omit<Device, 'by'>[];
  forget(by: Device, id: string): void;
  post(from: Device, to: string, bytes: Uint8Array): string;
  waiting(device: Device): { id: string; from: string; role: Role; size: number }[];
  read(device: Device, id: string): Uint8Array;
  collected(device: Device, id: string): void;
}

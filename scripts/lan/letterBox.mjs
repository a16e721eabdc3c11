// The letter-box between paired devices: sealed letters, kept until whoever they are for has taken them in.
import { createHash, randomBytes, timingSafeEqual } from 'node:crypto';

/** Letters without 0, O, 1 and I: a code is read off a screen and typed. */
const ALPHABET = '23456789ABCDEFGHJKLMNPQRSTUVWXYZ';
const CODE_LENGTH = 10;

export const limits = {
  /** bytes of one letter */
  letter: 16 * 2 ** 20,
  /** bytes and letters that lie in the box at once */
  bytes: 256 * 2 ** 20,
  letters: 2000,
  devices: 24,
  /** wrong codes of one sender in a row of time before it is let in for a while no more; of all together */
  wrongCodes: 12,
  wrongInAll: 2000,
  quietMs: 10 * 60_000,
  codeMs: 15 * 60_000,
};

/** What a paired device may do: the whole bench, tasting alone, helping alone. */
export const roles = ['log', 'taste', 'help'];

const hashed = (text) => createHash('sha256').update(text).digest();
const newCode = () => Array.from(randomBytes(CODE_LENGTH), (b) => ALPHABET[b % ALPHABET.length]).join('');

/** Why the box says no: a status of HTTP and a plain sentence. */
export class Refusal extends Error {
  constructor(status, message) {
    super(message);
    this.status = status;
  }
}

/** Who is paired, and what lies here for whom: as sealed as it came, here and on the shelf. */
export class LetterBox {
  devices = new Map();
  invites = new Map();
  letters = new Map();
  /** wrong codes: when, and from where */
  wrong = [];
  next = 1;

  /**
   * @param {{ now?: () => number, limits?: Partial<typeof limits>, known?: object[], onDevices?: (devices: object[]) => void,
   *   shelf?: { all(): object[], put(letter: object): void, remove(id: string): void } }} options
   * `known`: devices of an earlier run, `onDevices` hears of every change of them; `shelf` keeps letters over a restart: one
   * that can't be put there is refused, so that “sent” is never said of what a restart would lose
   */
  constructor({ now = Date.now, limits: own = {}, known = [], onDevices = () => {}, shelf } = {}) {
    this.now = now;
    this.limits = { ...limits, ...own };
    this.onDevices = onDevices;
    for (const d of known) {
      this.devices.set(d.id, { ...d, token: Buffer.from(d.token, 'hex') });
      this.next = Math.max(this.next, Number(d.id.slice(1)) + 1);
    }
    this.shelf = shelf ?? { all: () => [], put: () => {}, remove: () => {} };
    for (const letter of this.shelf.all()) {
      this.next = Math.max(this.next, Number(letter.id) + 1);
      if (this.devices.has(letter.to) && this.devices.has(letter.from)) this.letters.set(letter.id, letter);
      else this.shelf.remove(letter.id);
    }
  }

  /** Devices as they are kept between two runs: tokens as hashes alone. */
  tellDevices() {
    this.onDevices([...this.devices.values()].map((d) => ({ ...d, token: d.token.toString('hex') })));
  }

  /** A code that pairs one device, once. @param by device that asks; null: whoever started the server */
  invite(role = 'log', by = null) {
    if (!roles.includes(role)) throw new Refusal(400, 'There is no such right.');
    for (const [code, i] of this.invites) if (i.until < this.now()) this.invites.delete(code);
    const code = newCode();
    const id = randomBytes(8).toString('hex');
    this.invites.set(code, { id, role, by, until: by === null ? Infinity : this.now() + this.limits.codeMs });
    return { code, id };
  }

  /**
   * Pairs a device by its code. Who guesses is shut out alone: the others of the house go on pairing.
   * @param from address of the sender
   * @returns its id, its token, and whose letters it may exchange
   */
  pair(code, name, from = '') {
    this.wrong = this.wrong.filter(({ at }) => this.now() - at < this.limits.quietMs);
    const own = this.wrong.filter((w) => w.from === from).length;
    if (own >= this.limits.wrongCodes || this.wrong.length >= this.limits.wrongInAll)
      throw new Refusal(429, 'Too many wrong codes: wait some minutes, then ask for a new one.');
    const invite = this.invites.get(
      String(code)
        .toUpperCase()
        .replace(/[^A-Z0-9]/g, ''),
    );
    if (!invite || invite.until < this.now()) {
      this.wrong.push({ at: this.now(), from });
      throw new Refusal(403, 'That code isn’t known, was used already, or is too old.');
    }
    if (this.devices.size >= this.limits.devices)
      throw new Refusal(507, 'As many devices are paired as can be.');
    for (const [key, i] of this.invites) if (i === invite) this.invites.delete(key);
    const token = randomBytes(32).toString('base64url');
    const id = `d${this.next++}`;
    this.devices.set(id, {
      ...{
        id,
        name: this.freeName(String(name).slice(0, 60)),
        role: invite.role,
        by: invite.by,
        invite: invite.id,
      },
      ...{ token: hashed(token), seen: this.now() },
    });
    this.tellDevices();
    return { device: id, token, role: invite.role, host: invite.by };
  }

  /** A name nobody else goes by: the second “Phone” is “Phone 2”. */
  freeName(name) {
    const taken = new Set([...this.devices.values()].map((d) => d.name));
    let free = name;
    for (let n = 2; taken.has(free); n++) free = `${name} ${n}`;
    return free;
  }

  /** The device that a token belongs to. */
  who(token) {
    const mark = hashed(String(token ?? ''));
    for (const device of this.devices.values()) {
      if (!timingSafeEqual(device.token, mark)) continue;
      device.seen = this.now();
      return device;
    }
    throw new Refusal(401, 'This device isn’t paired here.');
  }

  /** Whoever a device exchanges letters with: its host, and those it invited. */
  peersOf(device) {
    return [...this.devices.values()]
      .filter((d) => d.by === device.id || d.id === device.by)
      .map(({ id, name, role, invite, seen }) => ({ id, name, role, invite, seen }));
  }

  /** Takes a device out, with its letters. A device may go itself, or be sent away by its host. */
  forget(by, id) {
    const device = this.devices.get(id);
    if (!device || (device.id !== by.id && device.by !== by.id))
      throw new Refusal(404, 'There is no such device here.');
    this.devices.delete(id);
    for (const [n, l] of this.letters) if (l.to === id || l.from === id) this.drop(n);
    this.tellDevices();
  }

  /** Puts a sealed letter into the box. */
  post(from, to, bytes) {
    if (!this.peersOf(from).some((p) => p.id === to)) throw new Refusal(404, 'There is no such device here.');
    if (bytes.length > this.limits.letter) throw new Refusal(413, 'That letter is too large.');
    const held = [...this.letters.values()].reduce((sum, l) => sum + l.bytes.length, 0);
    if (this.letters.size >= this.limits.letters || held + bytes.length > this.limits.bytes)
      throw new Refusal(507, 'The letter-box is full: it is emptied when the other device collects.');
    const id = String(this.next++);
    const letter = { id, from: from.id, role: from.role, to, bytes };
    try {
      this.shelf.put(letter);
    } catch {
      throw new Refusal(507, 'The letter-box can’t keep that now: its disk is full or closed.');
    }
    this.letters.set(id, letter);
    return id;
  }

  /** What lies here for a device, oldest first. */
  waiting(device) {
    return [...this.letters.values()]
      .filter((l) => l.to === device.id)
      .map(({ id, from, role, bytes }) => ({ id, from, role, size: bytes.length }));
  }

  read(device, id) {
    const letter = this.letters.get(id);
    if (!letter || letter.to !== device.id) throw new Refusal(404, 'There is no such letter.');
    return letter.bytes;
  }

  /** A letter that was collected is gone. */
  collected(device, id) {
    this.read(device, id);
    this.drop(id);
  }

  drop(id) {
    this.letters.delete(id);
    this.shelf.remove(id);
  }
}

import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { LetterBox, type Limits, Refusal, type Role } from './letterBox.mjs';
import { shelf } from './shelf.mjs';

const bytes = (n: number) => new Uint8Array(n);

function box(limits: Partial<Limits> = {}) {
  let now = 1_000_000;
  const made = new LetterBox({ now: () => now, limits });
  const pair = (role: Role = 'log', by: string | null = null) => {
    const { device, token } = made.pair(made.invite(role, by).code, 'x');
    return { device: made.devices.get(device)!, token };
  };
  return { box: made, pair, later: (ms: number) => (now += ms) };
}
const refusal = (run: () => unknown): number => {
  try {
    run();
  } catch (e) {
    if (e instanceof Refusal) return e.status;
    throw e;
  }
  return 0;
};

describe('a code', () => {
  it('pairs one device, once, however it is typed', () => {
    const { box: b } = box();
    const { code } = b.invite();
    const typed = `${code.slice(0, 5)} - ${code.slice(5).toLowerCase()}`;
    expect(b.pair(typed, 'Phone')).toMatchObject({ role: 'log', host: null });
    expect(refusal(() => b.pair(code, 'Another'))).toBe(403);
  });
  it('of a device lapses; that of the terminal waits', () => {
    const { box: b, pair, later } = box({ codeMs: 1000 });
    const desk = pair().device;
    const [own, terminal] = [b.invite('log', desk.id).code, b.invite().code];
    later(1001);
    expect(refusal(() => b.pair(own, 'Phone'))).toBe(403);
    expect(refusal(() => b.pair(terminal, 'Phone'))).toBe(0);
  });
  it('can’t be guessed: after some wrong ones nobody is let in for a while', () => {
    const { box: b, later } = box({ wrongCodes: 3, quietMs: 1000 });
    const { code } = b.invite();
    for (let i = 0; i < 3; i++) expect(refusal(() => b.pair(`WRONG${i}`, ''))).toBe(403);
    expect(refusal(() => b.pair(code, ''))).toBe(429);
    later(1001);
    expect(refusal(() => b.pair(code, ''))).toBe(0);
  });
  it('who guesses is shut out alone, until very many guess together', () => {
    const { box: b } = box({ wrongCodes: 3, wrongInAll: 5, quietMs: 1000 });
    const { code } = b.invite();
    for (let i = 0; i < 3; i++) expect(refusal(() => b.pair(`WRONG${i}`, '', 'guesser'))).toBe(403);
    expect(refusal(() => b.pair(code, '', 'guesser'))).toBe(429);
    expect(refusal(() => b.pair('TYPO', '', 'phone'))).toBe(403);
    expect(refusal(() => b.pair(code, '', 'phone'))).toBe(0);
    expect(refusal(() => b.pair('TYPO', '', 'another'))).toBe(403);
    expect(refusal(() => b.pair(b.invite().code, '', 'third'))).toBe(429);
  });
  it('gives no more rights than there are, to no more devices than there is room for', () => {
    const { box: b, pair } = box({ devices: 1 });
    expect(refusal(() => b.invite('all' as Role))).toBe(400);
    pair();
    expect(refusal(() => pair())).toBe(507);
  });
});

it('two devices don’t go by one name', () => {
  const { box: b, pair } = box();
  const names = [pair(), pair(), pair()].map((p) => p.device.name);
  expect(names).toEqual(['x', 'x 2', 'x 3']);
  const host = b.devices.get('d1') ?? [...b.devices.values()][0]!;
  b.forget(host, host.id);
  expect(pair().device.name).toBe('x');
});

describe('letters', () => {
  const three = () => {
    const made = box({ letter: 10, bytes: 25, letters: 4 });
    const desk = made.pair();
    return {
      ...made,
      desk,
      phone: made.pair('log', desk.device.id),
      other: made.pair('log', desk.device.id),
    };
  };
  it('go between a host and whom it invited, not past it', () => {
    const { box: b, desk, phone, other } = three();
    b.post(phone.device, desk.device.id, bytes(3));
    expect(b.waiting(desk.device)).toMatchObject([{ from: phone.device.id, role: 'log', size: 3 }]);
    expect(refusal(() => b.post(phone.device, other.device.id, bytes(1)))).toBe(404);
    expect(refusal(() => b.post(phone.device, 'd99', bytes(1)))).toBe(404);
  });
  it('are read by whom they are for, and gone once collected', () => {
    const { box: b, desk, phone, other } = three();
    const id = b.post(desk.device, phone.device.id, bytes(3));
    expect(refusal(() => b.read(other.device, id))).toBe(404);
    expect(b.read(phone.device, id)).toHaveLength(3);
    b.collected(phone.device, id);
    expect(b.waiting(phone.device)).toEqual([]);
    expect(refusal(() => b.read(phone.device, id))).toBe(404);
  });
  it('have a largest size, and the box a largest number and weight', () => {
    const { box: b, desk, phone } = three();
    const post = (n: number) => refusal(() => b.post(phone.device, desk.device.id, bytes(n)));
    expect(post(11)).toBe(413);
    expect([post(10), post(10), post(6), post(5)]).toEqual([0, 0, 507, 0]);
    b.collected(desk.device, b.waiting(desk.device)[0]!.id);
    expect([post(1), post(1), post(1)]).toEqual([0, 0, 507]);
  });
  it('of whoever is sent away go too, and its token is worth nothing', () => {
    const { box: b, desk, phone, other } = three();
    b.post(phone.device, desk.device.id, bytes(1));
    expect(refusal(() => b.forget(other.device, phone.device.id))).toBe(404);
    b.forget(desk.device, phone.device.id);
    expect(b.waiting(desk.device)).toEqual([]);
    expect(refusal(() => b.who(phone.token))).toBe(401);
    expect(refusal(() => b.who(''))).toBe(401);
  });
});

it('who is paired is known to the next run by hashes alone; letters aren’t kept', () => {
  let kept: object[] = [];
  const first = new LetterBox({ onDevices: (d) => (kept = d) });
  const { token, device } = first.pair(first.invite().code, 'Desk');
  expect(JSON.stringify(kept)).not.toContain(token);
  const second = new LetterBox({ known: JSON.parse(JSON.stringify(kept)) as object[] });
  expect(second.who(token).id).toBe(device);
  expect(second.pair(second.invite().code, 'Phone').device).not.toBe(device);
});

describe('letters over a restart of the server', () => {
  const folder = mkdtempSync(join(tmpdir(), 'palazzo-letters-'));
  let known: object[] = [];
  const started = () => new LetterBox({ known, onDevices: (d) => (known = d), shelf: shelf(folder) });
  it('lie there as they came, in their order, and go once they are collected', () => {
    const one = started();
    const host = one.devices.get(one.pair(one.invite().code, 'Desk').device)!;
    const phone = one.devices.get(one.pair(one.invite('log', host.id).code, 'Phone').device)!;
    const ids = [1, 2, 3].map((n) => one.post(phone, host.id, Uint8Array.from([n, 10, 0, 255])));
    one.collected(host, ids[1]!);
    writeFileSync(join(folder, '99.letter.new'), 'half of one');
    writeFileSync(join(folder, '98.letter'), 'no head');
    const two = started();
    const again = two.devices.get(host.id)!;
    expect(two.waiting(again).map((l) => l.id)).toEqual([ids[0], ids[2]]);
    expect([...two.read(again, ids[2]!)]).toEqual([3, 10, 0, 255]);
    // A new letter never takes an old one's place.
    expect(ids).not.toContain(two.post(two.devices.get(phone.id)!, host.id, bytes(1)));
    two.forget(again, phone.id);
    expect(started().waiting(again)).toEqual([]);
  });
  it('one that can’t be put on the disk is refused, not said to be sent', () => {
    const full = new LetterBox({
      shelf: {
        all: () => [],
        put: () => {
          throw new Error('ENOSPC');
        },
        remove: () => {},
      },
    });
    const host = full.devices.get(full.pair(full.invite().code, 'Desk').device)!;
    const phone = full.devices.get(full.pair(full.invite('log', host.id).code, 'Phone').device)!;
    expect(refusal(() => full.post(phone, host.id, bytes(1)))).toBe(507);
    expect(full.waiting(host)).toEqual([]);
  });
});

import { describe, expect, it } from 'vitest';
import { answerTo, handOver, sentIn } from './handedOver';

const asked = (address: string, body: object) =>
  new Request(`http://bench${address}`, { method: 'POST', body: JSON.stringify(body) });

describe('what is handed over to an action', () => {
  it('comes as the request would have it: a copy, without what JSON leaves out', async () => {
    const data = { body: { value: 12.5, note: undefined }, days: [1] };
    const { address } = handOver(data, { action: '/trial/t/rounds?round=r1', key: 'k1' });
    data.body.value = 99;
    expect(new URL(`http://bench${address}`).searchParams.get('round')).toBe('r1');
    expect(await sentIn(asked(address, {}))).toEqual({ body: { value: 12.5 }, days: [1] });
  });

  it('is taken once; another under way at the same time stays its own', async () => {
    const { address: a } = handOver({ n: 1 }, { action: '/trial/t/rounds', key: 'a' });
    const { address: b } = handOver({ n: 2 }, { action: '/trial/t/rounds', key: 'b' });
    expect(await sentIn(asked(b, { n: 'sent' }))).toEqual({ n: 2 });
    expect(await sentIn(asked(a, { n: 'sent' }))).toEqual({ n: 1 });
    expect(await sentIn(asked(a, { n: 'sent' }))).toEqual({ n: 'sent' });
  });

  it('is read from the request where nothing was handed over', async () => {
    expect(await sentIn(asked('/trial/t/rounds?round=r1', { n: 3 }))).toEqual({ n: 3 });
  });

  it('is answered to whoever handed it over, by what the action came to', async () => {
    const first = handOver({ n: 1 }, { action: '/a', key: 'first' });
    const second = handOver({ n: 2 }, { action: '/a', key: 'second' });
    const [one, two] = [asked(first.address, {}), asked(second.address, {})];
    await Promise.all([sentIn(one), sentIn(two)]);
    answerTo(two, { saved: true });
    answerTo(one, { errors: { n: 'Too few.' } });
    answerTo(asked('/a', {}), { saved: true });
    expect(await first.answer).toEqual({ errors: { n: 'Too few.' } });
    expect(await second.answer).toEqual({ saved: true });
  });
});

import { beforeEach, describe, expect, it, vi } from 'vitest';
import { holdPage, isAllOnItsWay, leaveFor, onAsked, onHeld, wouldBeLost } from './unsaved';

const page = new EventTarget();
beforeEach(() => vi.stubGlobal('window', page));
const asksBeforeClosing = () => !page.dispatchEvent(new Event('beforeunload', { cancelable: true }));

describe('what isn’t kept yet', () => {
  it('holds the page until the last of it lets go, and is named by who said so last', () => {
    expect(asksBeforeClosing()).toBe(false);
    const [first, second] = [holdPage('The pick'), holdPage('The weight')];
    expect([wouldBeLost(), asksBeforeClosing()]).toEqual(['The weight', true]);
    second();
    expect([wouldBeLost(), asksBeforeClosing()]).toEqual(['The pick', true]);
    first();
    expect([wouldBeLost(), asksBeforeClosing()]).toEqual([null, false]);
  });

  it('is asked about before another part of the page is gone to, and only then', () => {
    const asked: (() => void)[] = [];
    const stop = onAsked((go) => asked.push(go));
    const go = vi.fn<() => void>();
    leaveFor(go);
    expect([go.mock.calls.length, asked.length]).toEqual([1, 0]);
    const release = holdPage('What you typed here');
    leaveFor(go);
    expect([go.mock.calls.length, asked.length]).toEqual([1, 1]);
    asked[0]!();
    expect(go).toHaveBeenCalledTimes(2);
    release();
    stop();
  });

  it('is waited for where all of it is on its way to the store, and asked about as soon as some is not', () => {
    expect(isAllOnItsWay()).toBe(false);
    const heard: [string | null, boolean][] = [];
    const stop = onHeld(() => heard.push([wouldBeLost(), isAllOnItsWay()]));
    const sent = holdPage('The readings you typed', true);
    const typed = holdPage('The order you made');
    typed();
    sent();
    stop();
    expect(heard).toEqual([
      ['The readings you typed', true],
      ['The order you made', false],
      ['The readings you typed', true],
      [null, false],
    ]);
  });
});

import { describe, expect, it } from 'vitest';
import { deriveState } from '~core/log/state';
import { plan } from '~core/testing/trial';
import { blankSession, sessionOfForm } from './sessionForm';

const state = deriveState(plan({ treatments: ['Water', 'A'], replicates: 2 }), []);
const blank = { ...blankSession(state, 3), tasters: 'Ada, Bo' };
const ticked = { ...blank, read: [true, true, true, true, true, true] };
const made = (form: typeof blank) => sessionOfForm(state, form, [], { seed: 1, salt: 'x'.repeat(16) });

describe('a session that is asked for', () => {
  it('is drawn for everybody named', () => {
    const r = made(ticked);
    expect(r.ok && r.value.session.tasters.map((t) => t.name)).toEqual(['Ada', 'Bo']);
  });

  it('is refused with all that is wrong at once, each at its field', () => {
    const r = made({
      ...blank,
      name: ' ',
      tasters: 'Ada, ada',
      attributes: [{ name: '', scaleText: '1 one step', better: 'more' }],
    });
    expect(r.ok ? {} : r.error).toEqual({
      name: 'Name the session.',
      tasters: '“ada” is there twice.',
      'attributes.0.name': 'Name what is scored.',
      'attributes.0.scaleText': 'Two to eleven steps, one a line.',
      read: expect.stringContaining('when in doubt, don’t taste'),
    });
  });

  it('with a word that is too long is refused at the words', () => {
    const r = made({ ...ticked, words: `mild, ${'long'.repeat(9)}` });
    expect(Object.keys(r.ok ? {} : r.error)).toEqual(['words']);
  });
});

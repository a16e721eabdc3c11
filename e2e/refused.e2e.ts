// What the server says of a path it refuses: nothing of the machine it runs on.
import { expect, inject, it } from 'vitest';

it.each(['/assets/none.js', '/assets/%2e%2e%2f%2e%2e%2fpackage.json', '/none.txt', '/assets/%c0%af'])(
  'says no more of %s than that it isn’t there',
  async (path) => {
    const answer = await fetch(`${inject('ownUrl')}${path}`);
    expect(answer.status).toBeGreaterThanOrEqual(400);
    expect(await answer.text()).toMatch(/^(There is no such page here|That can’t be served)\.$/);
  },
);

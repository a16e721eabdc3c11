import { config } from 'zod';

// What the page's head says for the page: no code is made of text.
config({ jitless: true });

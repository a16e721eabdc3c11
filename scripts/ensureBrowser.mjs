// Sees to it that the browser of the end-to-end tests is there. Needs nothing but Node.
import { ensureTestBrowser } from './chromium.mjs';

process.exitCode = ensureTestBrowser() ? 0 : 1;

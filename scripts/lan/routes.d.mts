import type { Router } from 'express';
import type { LetterBox } from './letterBox.mjs';

export function lanRoutes(options: {
  box?: LetterBox;
  fingerprint: string;
  authority: string;
  addresses: string[];
  port: () => number;
}): { lan: Router; box: LetterBox };

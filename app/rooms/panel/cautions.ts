import type { PanelSession } from '~core/model/panel';

/** What the host reads and ticks before anything is tasted. */
const ofTasting = [
  'A food crop, grown with inputs meant for food crops and used as their labels say.',
  'No pesticide on it, or its harvest interval has passed. Labels and local rules come first.',
  'Nobody at the table is allergic to the crop.',
  'Clean knife, clean cups, clean hands; shoots and sprouts were kept cold until now.',
  'When in doubt, it isn’t tasted.',
] as const;
const ofSmelling = [
  'Nothing was sprayed on it today, and nobody at the table is allergic to the crop.',
] as const;

/** Cautions of a session by what is judged; looking alone has none. */
export const cautionsFor = (senses: PanelSession['senses']): readonly string[] =>
  senses.some((s) => s === 'taste' || s === 'crunch')
    ? ofTasting
    : senses.includes('smell')
      ? ofSmelling
      : [];

/** What the server does so that nothing but the taste tells (practice). */
export const servingRules = [
  'Trim all to one length and one size, leaves off where they tell, so that looks don’t give a sample away.',
  'The same cup, the same amount, the same temperature for all; one sample from the top of a unit and one from deep in it.',
  'Write the code on the cup, nothing else. Serve one at a time, in the order of the card.',
  'Water and plain bread to rinse between samples, and half a minute.',
  'Even, white light; coloured lamps off. Tasters don’t talk until all are done.',
] as const;

import type { Role } from './understood';

/** What people call a column of each role, in whole words; the first that fits is it. */
export const roleWords: readonly [Exclude<Role, 'response' | 'ignored'>, RegExp][] = [
  ['words', /^(notes?|comments?|remarks?|observations?)$/i],
  ['block', /^(blocks?|blk|bloc|bench|shelf|tier|level|row ?pos|col ?pos)( ?(no|nr|number|id))?$/i],
  ['crop', /^(crop|species|plant species|variety of crop)$/i],
  ['sample', /^(sub ?sample|sample|plant in \w+|leaf (no|nr|number)|measurement)( ?(no|nr|number))?$/i],
  ['day', /^(days?|date|dap|das|time|weeks?|measured on|day of (the )?trial)$/i],
  [
    'treatment',
    /^(treatments?|treat|trt|contenders?|products?|feeds?|fertili[sz]ers?|nutrients?( line)?|additives?|medium|media|substrate|light|lamp|sprays?|system|brand|formula|recipe|supplement|diet|arm|condition|variant|group)$/i,
  ],
  [
    'unit',
    /^(unit|pot|tray|plot|plant|tank|bed|box|jar|tub|bucket|bag|tube|vessel|container|chick|subject|animal|replicates?|replication|rep|repetition|repeat)( ?(no|nr|number|id|code|#))?$/i,
  ],
];

/** Numbers that identify a row, a plant or a person, whatever they number. */
export const identifies = /^(id|nr|no|number|#|code)\.?$/i;

/** Says outright that it is the treatment. */
export const isTreatment = /^(treatments?|treat|trt|contenders?)$/i;

/** Figures that say where or when, not how much. */
export const neverFigures = /^(row|col|column|position|pos|x|y|seed|year|price|cost|lat|lon)$/i;

/** Who or what can get one treatment after the other. */
export const isWhoever = /^(id|subject|person|patient|taster|animal|plant id)\.?$/i;

/** Things that had it, and how many there were. */
export const ofAll = {
  k: /^(k|germinated|emerged|sprouted|rooted|alive|survived|survivors|dead|died|infected|healthy|successes|hits|positive|sound)$/i,
  n: /^(n|of|total|sown|planted|seeds|cuttings|trials|size|out of|checked|exposed)$/i,
};

/** A level that is the control, whatever its case. */
export const controlLevel = /^(control|check|water|untreated|none|nothing|blank|ctrl)$/i;

/** A line that sums the lines above it. */
export const summaryLine =
  /^(sums?|totals?|grand total|means?|averages?|avg|medians?|sd|se|sem|st\.? ?dev\.?|standard deviation|std|cv|cv ?%|min|minimum|max|maximum|variance|summe|mittelwert|media|somma|moyenne|promedio)\.?:?$/i;

/** What isn't there, as people and programs write it. */
export const missing = /^(|na|n\/a|nan|null|missing|-|–|—|\.|\?)$/i;

/** Names of traits that are counted, scored or dated. */
export const kindWords = {
  count:
    /\b(count|counts|number of|no\. of|leaves|fruits?|flowers|shoots|tillers|pods|breaks|insects|spots|buds|roots)\b/i,
  score: /\b(score|rating|grade|vigou?r|quality|taste|liking|looks)\b/i,
  days: /\bdays? (to|until|till)\b/i,
};

/** Units that may stand behind a name without brackets. */
export const knownUnit =
  /^(g|kg|mg|lb|lbs|oz|cm|mm|m|in|inch|inches|ft|ml|l|mL|L|gal|%|percent|ppm|ms\/cm|ec|°c|°f|lux|g\/plant|g\/pot|g\/tray|cm2|cm²|m²)$/i;

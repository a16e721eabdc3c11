/** What a logger's column can be. */
export type SeriesQuantity = 'temperature' | 'humidity' | 'ppfd' | 'lux' | 'ec' | 'ph' | 'level';

interface Named {
  quantity: SeriesQuantity;
  /** as headers spell it, in several languages, after accents are taken off */
  words: RegExp;
  /** the unit where the header says none */
  unit: string | null;
}

const named: readonly Named[] = [
  { quantity: 'ppfd', words: /ppfd|\bpar\b|photosynth|photon|quantum/, unit: 'µmol m⁻² s⁻¹' },
  {
    quantity: 'humidity',
    words: /hum|feucht|rel\.? ?f|\br\.?h\b|\brh%?|hr\b|luftfukt|vocht|umid/,
    unit: '%',
  },
  { quantity: 'temperature', words: /temp|\bt\b|tmp|grad|°c|°f/, unit: '°C' },
  { quantity: 'ec', words: /\bec\b|conduct|leitf|conduttiv|geleid|\bcf\b/, unit: 'mS/cm' },
  { quantity: 'ph', words: /\bph\b/, unit: null },
  { quantity: 'lux', words: /lux|illumin|beleucht|eclairement|light|licht|lumiere|luce|luz/, unit: 'lx' },
  { quantity: 'level', words: /level|pegel|fullstand|niveau|livello|nivel/, unit: null },
];

const units: readonly (readonly [RegExp, string, SeriesQuantity | null])[] = [
  [/µmol|μmol|umol/, 'µmol m⁻² s⁻¹', 'ppfd'],
  [/° ?c\b|deg ?c|celsius|\bc\b/, '°C', 'temperature'],
  [/° ?f\b|deg ?f|fahrenheit|\bf\b/, '°F', 'temperature'],
  [/ms\/?cm|ds\/?m/, 'mS/cm', 'ec'],
  [/[µμu]s\/?cm/, 'µS/cm', 'ec'],
  [/k ?lux|klx/, 'klx', 'lux'],
  [/lux|\blx\b/, 'lx', 'lux'],
  [/%|\bpct\b|percent|prozent/, '%', 'humidity'],
  [/\bcm\b/, 'cm', 'level'],
  [/\bmm\b/, 'mm', 'level'],
  [/\bl\b|litres?|liters?/, 'L', 'level'],
];

/** Accents off, underscores to spaces, lower case; “°” and “µ” stay. */
const plain = (header: string): string =>
  header
    .normalize('NFD')
    .replace(/[\u0300-\u036f]/g, '')
    .replace(/_/g, ' ')
    .toLowerCase();

/**
 * What a column holds, by its heading: in brackets or behind the name stands the unit; several spellings and languages
 * are known.
 * @example quantityOf('Luftfeuchte [%]') // { quantity: 'humidity', unit: '%' }
 */
export function quantityOf(header: string): { quantity: SeriesQuantity | null; unit: string | null } {
  const text = plain(header);
  const bracketed = /[([{]([^)\]}]*)[)\]}]|[,/]\s*([^,/]+)$/.exec(text);
  const unitText = bracketed ? (bracketed[1] ?? bracketed[2]!) : '';
  const name = bracketed?.[1] !== undefined ? text.replace(bracketed[0], ' ') : text;
  const by = named.find((n) => n.words.test(name));
  const inBrackets = units.find(([pattern]) => unitText !== '' && pattern.test(unitText));
  // Behind the name single letters tell too much (“Temp C”, but “box c”): only where the name says temperature.
  const behind = units.find(
    ([pattern, , q]) => pattern.test(name) && (by ? q === by.quantity : pattern.source.length > 12),
  );
  const unit = inBrackets ?? behind;
  // “Light (µmol/m²/s)” and “Light (lux)” are two quantities.
  if (by?.quantity === 'lux' && unit?.[2] === 'ppfd') return { quantity: 'ppfd', unit: unit[1] };
  if (by) {
    const own = unit && (unit[2] === by.quantity || by.quantity === 'level') ? unit[1] : null;
    // “Soil moisture” by a per cent sign alone isn't the air's.
    return { quantity: by.quantity, unit: own ?? (inBrackets && !own ? unitText : by.unit) };
  }
  if (unit && unit[1] !== '%') return { quantity: unit[2], unit: unit[1] };
  return { quantity: null, unit: unit?.[1] ?? (unitText || null) };
}

const timeWords =
  /^(date ?[/ -]? ?time|datetime|date|time ?stamp|timestamp|time|zeit|datum|zeitpunkt|uhrzeit|fecha|hora|heure|horodatage|data|ora|tijd|tid|utc|local time|measured at|recorded at)\b/;

/** Whether a heading names a time. @example isTimeHeading('Datum/Uhrzeit') // true */
export const isTimeHeading = (header: string): boolean => timeWords.test(plain(header).trim());

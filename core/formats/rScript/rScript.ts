import type { NamedInput, trialFindings } from '../../account/trialFindings';
import { type Asked, askedFindings } from './findingValues';
import { rLibrary, rLibraryFor } from './library';

/** One character outside plain text as R writes it; half a surrogate pair is none. */
function escaped(character: string): string {
  const point = character.codePointAt(0)!;
  if (point === 0) return '';
  const known = point >= 0xd800 && point <= 0xdfff ? 0xfffd : point;
  return `\\U${known.toString(16).padStart(8, '0')}`;
}

/** A text as R writes it. @example rText('say "so"') // '"say \\"so\\""' */
export const rText = (text: string | null): string =>
  text === null ? 'NA' : `"${text.replace(/[\\"]/g, '\\$&').replace(/[^ -~]/gu, escaped)}"`;

const line = (a: Asked): string =>
  `  list(finding = ${a.finding}, trait = ${rText(a.trait)}, round = ${rText(a.round)}, crop = ${rText(a.crop)}, method = ${rText(a.method)}, control = ${a.control}, peers = ${a.peers ? 'TRUE' : 'FALSE'}, alpha = ${a.alpha}, least = ${a.least}, ranked = ${a.ranked ? 'TRUE' : 'FALSE'})`;

const run = String.raw`
# ---- every finding ------------------------------------------------------------------------

one_finding <- function(f) {
  d <- values[values$finding == f$finding, ]
  arms <- seq_along(contenders)[seq_along(contenders) %in% d$arm]
  if (!(f$control %in% arms) || length(arms) < 2) return(NULL)
  found <- get(f$method, mode = "function")(d, f, arms)
  if (is.null(found)) return(NULL)
  data.frame(trait = f$trait, round = f$round, crop = f$crop, name = contenders[found$arm],
    found[c("difference", "low", "high", "p")], row.names = NULL)
}

result <- do.call(rbind, lapply(findings, one_finding))
# An open end of an interval stands empty.
if (!is.null(result)) for (column in c("difference", "low", "high")) result[[column]][is.infinite(result[[column]])] <- NA
if (is.null(result)) result <- data.frame(trait = character(), round = character(), crop = character(),
  name = character(), difference = numeric(), low = numeric(), high = numeric(), p = numeric())
cat(names(result), sep = ",")
cat("\n")
write.table(result, sep = ",", quote = which(sapply(result, is.character)), qmethod = "double", na = "",
  row.names = FALSE, col.names = FALSE)
`;

/** Where the script has its values from. */
type ValuesFrom = 'file' | { csv: string };

/**
 * An R script that works out every finding of a trial anew, in base R: run in the unpacked zip it prints the figures of
 * the Findings room as CSV.
 *
 * @param from the zip's own table, or the same table written into the script where the zip has none
 */
export function rScript(
  question: string,
  contenders: readonly string[],
  asked: readonly Asked[],
  from: ValuesFrom = 'file',
  library: string = rLibrary,
): string {
  const source =
    from === 'file'
      ? `file.path("data", "finding_values.csv")`
      : `textConnection(c(\n${from.csv.trimEnd().split(/\r?\n/).map((l) => rText(l)).join(',\n')}))`; // prettier-ignore
  return `# ${question.replace(/[\r\n]+/g, ' ')}
#
${
  from === 'file'
    ? `# Works out the findings of this trial anew. Run it in the unpacked zip:
#   Rscript findings.R
# It reads one row a unit from data/finding_values.csv, which is made from data/observations.csv: rounds that are the
# same for all, samples averaged, picks added, left-out units left out.`
    : '# The values, one row a unit, stand below.'
}
# Base R alone. Columns: difference, low, high and
# p against the control, on the scale of the method: a difference, a ratio of rates (counts), or the share of pairs in
# which a contender's value is above the control's (scores, ranks, days until). Limits hold for all together.
options(digits = 15)

values <- read.csv(${source}, colClasses = c(block = "character", column = "character", unit = "character"),
  na.strings = "", check.names = FALSE, encoding = "UTF-8")

contenders <- c(${contenders.map((c) => rText(c)).join(', ')})

findings <- list(
${asked.map(line).join(',\n')}
)
${library}${run}`;
}

/** The script of a trial, for its own zip. */
export const scriptOf = (
  question: string,
  { inputs, order, nameOf }: ReturnType<typeof trialFindings>,
): string => rScript(question, order.map(nameOf), askedFindings(inputs));

/**
 * The R lines for exactly one finding, with its values in them: to be copied into R.
 * @param csv the finding's own rows, as in `data/finding_values.csv`
 */
export function rLines(
  title: string,
  input: NamedInput,
  { order, nameOf }: Pick<ReturnType<typeof trialFindings>, 'order' | 'nameOf'>,
  csv: string,
): string {
  const asked = askedFindings([input], input.input.method);
  return rScript(title, order.map(nameOf), asked, { csv }, rLibraryFor(asked[0]?.method ?? 'linear'));
}

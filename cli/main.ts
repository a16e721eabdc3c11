import { canopy, canopyUsage } from './canopy';
import { compare, compareUsage } from './compare';
import { demo, demoUsage } from './demo';
import { factorial, factorialUsage } from './factorial';
import { findings, findingsUsage } from './findings';
import { read, readUsage } from './read';
import { review, reviewUsage } from './review';
import { script, scriptUsage } from './script';
import { layout, layoutUsage } from './layout';
import { logger, loggerUsage } from './logger';
import { mix, mixUsage } from './mix';
import { panel, panelUsage } from './panel';
import { permute, permuteUsage } from './permute';
import { proportions, proportionsUsage } from './proportions';
import { scorecard, scorecardUsage } from './scorecard';
import { scores, scoresUsage } from './scores';
import { standings, standingsUsage } from './standings';
import { spread, spreadUsage } from './spread';
import { times, timesUsage } from './times';
import { curves, curvesUsage } from './curves';
import { germination, germinationUsage } from './germination';
import { PlainError } from './plainError';
import { power, powerUsage } from './power';
import { verify, verifyUsage } from './verify';

const commands: Record<string, (args: string[]) => string | Printed> = {
  compare,
  proportions,
  times,
  scores,
  spread,
  permute,
  factorial,
  curves,
  germination,
  power,
  layout,
  mix,
  panel,
  canopy,
  logger,
  scorecard,
  standings,
  findings,
  script,
  demo,
  verify,
};
/** How each is called, in the order they are listed. */
const usages: Record<string, string> = {
  compare: compareUsage,
  proportions: proportionsUsage,
  times: timesUsage,
  scores: scoresUsage,
  spread: spreadUsage,
  permute: permuteUsage,
  factorial: factorialUsage,
  curves: curvesUsage,
  germination: germinationUsage,
  power: powerUsage,
  layout: layoutUsage,
  mix: mixUsage,
  panel: panelUsage,
  canopy: canopyUsage,
  logger: loggerUsage,
  scorecard: scorecardUsage,
  standings: standingsUsage,
  findings: findingsUsage,
  script: scriptUsage,
  demo: demoUsage,
  review: reviewUsage,
  read: readUsage,
  verify: verifyUsage,
};

/** What a command printed, and the status it ends with: 0, 1 where something differs, or 2 for what the person can put right. */
export interface Ended {
  status: 0 | 1 | 2;
  stdout: string;
  stderr: string;
}

/** What a command prints that also says whether something differs. */
export interface Printed {
  status: 0 | 1;
  stdout: string;
}

/** Commands that take their time. */
const slow: Record<string, (args: string[]) => Promise<string>> = { review, read };

const asksHelp = (args: readonly string[]): boolean => args.includes('--help') || args.includes('-h');

/** As `main`, for every command, those too that take their time. */
export async function mainOrSlow(argv: readonly string[]): Promise<Ended> {
  const [name, ...rest] = argv;
  const command = name === undefined ? undefined : slow[name];
  if (!command || asksHelp(rest)) return main(argv);
  try {
    return { status: 0, stdout: `${await command(rest)}\n`, stderr: '' };
  } catch (e) {
    return plainly(e);
  }
}

/** What the person can put right, as one line; anything else is thrown on. */
function plainly(e: unknown): Ended {
  if (!(e instanceof PlainError)) throw e;
  return { status: 2, stdout: '', stderr: `palazzo: ${e.message.replaceAll('\n', ' ')}\n` };
}

/** The command line: a command's name and its arguments in, what is printed out. */
export function main(argv: readonly string[]): Ended {
  const [name, ...rest] = argv;
  if (name === undefined || name === '--help' || name === 'help') {
    const all = Object.values(usages).join('\n\n');
    return { status: 0, stdout: `Palazzo from a terminal.\n\n${all}\n`, stderr: '' };
  }
  if (usages[name] && asksHelp(rest)) return { status: 0, stdout: `${usages[name]}\n`, stderr: '' };
  try {
    const command = commands[name];
    if (!command)
      throw new PlainError(
        `There is no command “${name}”; there is: ${[...Object.keys(commands), ...Object.keys(slow)].join(', ')}.`,
      );
    const printed = command(rest);
    const { status, stdout } =
      typeof printed === 'string' ? { status: 0 as const, stdout: printed } : printed;
    return { status, stdout: `${stdout}\n`, stderr: '' };
  } catch (e) {
    return plainly(e);
  }
}

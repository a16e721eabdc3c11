import { compare, compareUsage } from './compare';
import { layout, layoutUsage } from './layout';
import { mix, mixUsage } from './mix';
import { PlainError } from './plainError';
import { power, powerUsage } from './power';

const commands: Record<string, (args: string[]) => string> = { compare, power, layout, mix };

function main(argv: string[]): number {
  const [name, ...rest] = argv;
  if (name === undefined || name === '--help' || name === 'help') {
    process.stdout.write(
      `Palazzo from a terminal.\n\n${[compareUsage, powerUsage, layoutUsage, mixUsage].join('\n\n')}\n`,
    );
    return 0;
  }
  try {
    const command = commands[name];
    if (!command)
      throw new PlainError(`There is no command “${name}”; there is: ${Object.keys(commands).join(', ')}.`);
    process.stdout.write(`${command(rest)}\n`);
    return 0;
  } catch (e) {
    if (!(e instanceof PlainError)) throw e;
    process.stderr.write(`palazzo: ${e.message.replaceAll('\n', ' ')}\n`);
    return 2;
  }
}

process.exitCode = main(process.argv.slice(2));

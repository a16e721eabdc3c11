import { mainOrSlow } from './main';

const { status, stdout, stderr } = await mainOrSlow(process.argv.slice(2));
process.stdout.write(stdout);
process.stderr.write(stderr);
process.exitCode = status;

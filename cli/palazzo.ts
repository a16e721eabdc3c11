import { main } from './main';

const { status, stdout, stderr } = main(process.argv.slice(2));
process.stdout.write(stdout);
process.stderr.write(stderr);
process.exitCode = status;

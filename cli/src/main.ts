import { answer } from './answer.ts';

const { exitCode, stdout, stderr } = answer(process.argv.slice(2));
process.stdout.write(stdout);
process.stderr.write(stderr);
process.exitCode = exitCode;

import { answer } from './answer.ts';

const { exitCode, stdout, stderr } = answer(process.argv.slice(2));
// Whoever reads no further has enough: `… | head` is no fault.
for (const stream of [process.stdout, process.stderr])
  stream.on('error', (problem: NodeJS.ErrnoException) => {
    if (problem.code !== 'EPIPE') throw problem;
  });
process.stdout.write(stdout);
process.stderr.write(stderr);
process.exitCode = exitCode;

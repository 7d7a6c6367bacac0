/** The sums, each beside a plain reference in the same run, as JSON; those that are named, or all. Nothing is asserted but equality. */
import { ringBench } from './ring.ts';
import { coverageBench } from './coverage.ts';
import { editBench } from './edit.ts';
import { alignmentBench } from './alignment.ts';
import { controlsBench } from './controls.ts';
import { proofBench } from './proof.ts';
import { sightBench } from './sight.ts';

const BENCHES: Readonly<Record<string, () => unknown>> = {
  ring: ringBench,
  coverage: coverageBench,
  edit: editBench,
  alignment: alignmentBench,
  controls: controlsBench,
  proof: proofBench,
  sight: sightBench,
};

const named = process.argv.slice(2);
const unknown = named.filter((name) => !Object.hasOwn(BENCHES, name));
if (unknown.length > 0)
  throw new Error(
    `there is no bench '${unknown.join(', ')}', only: ${Object.keys(BENCHES).join(', ')}, screens`,
  );
const report = Object.entries(BENCHES).flatMap(([name, bench]) =>
  named.length === 0 || named.includes(name) ? [[name, bench()] as const] : [],
);
process.stdout.write(
  `${JSON.stringify({ node: process.version, ...Object.fromEntries(report) }, null, 2)}\n`,
);

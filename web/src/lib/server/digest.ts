import { readBuildText } from '@flarik/core/rules/document';
import { checkWhole } from '@flarik/core/proof/checkWhole';
import { SEVERITIES, Severity } from '@flarik/core/words/severity';
import { constants, setPriority } from 'node:os';
import { isMainThread } from 'node:worker_threads';
import { z } from 'zod';
import { BuildPicture, pictureOf } from '../builds/picture';

// Whoever saves goes before whoever counts. Linux has a priority for each thread; elsewhere it would be the server's.
if (!isMainThread && process.platform === 'linux') setPriority(constants.priority.PRIORITY_LOW);

/** What the list of builds shows of a build, beyond what stands in the document: findings by severity, and a picture. */
export const Digest = z.strictObject({ findings: z.record(Severity, z.int()), picture: BuildPicture });
export type Digest = z.infer<typeof Digest>;

/** Digests a build document: seconds of work, for a thread of its own. */
export default function digest(document: string): Digest {
  const build = readBuildText(document);
  const { findings } = checkWhole(build);
  const counts: Digest['findings'] = { blocks: 0, warns: 0, advises: 0, notes: 0 };
  for (const severity of SEVERITIES)
    counts[severity] = findings.filter((f) => f.severity === severity).length;
  return { findings: counts, picture: pictureOf(build) };
}

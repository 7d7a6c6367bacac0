import { readBuildText } from '@flarik/core/rules/document';
import { checkWhole } from '@flarik/core/verification/checkWhole';
import { acceptanceStatusOf } from '@flarik/core/rules/acceptances';
import { causesOf, countBySeverity } from '@flarik/core/rules/causes';
import { Severity } from '@flarik/core/words/severity';
import { constants, setPriority } from 'node:os';
import { isMainThread } from 'node:worker_threads';
import { z } from 'zod';
import { BuildPicture } from '../api';
import { pictureOf } from '../builds/picture';

// Whoever saves goes before whoever counts. Linux has a priority for each thread; elsewhere it would be the server's.
if (!isMainThread && process.platform === 'linux') setPriority(constants.priority.PRIORITY_LOW);

/** What the list of builds shows of a build, beyond what stands in the document: what is wrong by severity, and a picture. */
export const Digest = z.strictObject({ findings: z.record(Severity, z.int()), picture: BuildPicture });
export type Digest = z.infer<typeof Digest>;

/** Digests a build document: seconds of work, for a thread of its own. */
export default function digest(document: string): Digest {
  const build = readBuildText(document);
  const { open } = acceptanceStatusOf(build, checkWhole(build).findings);
  return { findings: countBySeverity(causesOf(build, open)), picture: pictureOf(build) };
}

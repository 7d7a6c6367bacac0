import { BuildParts } from './parts.ts';
import { danglingReferences } from './references.ts';

export { BUILD_FORMAT, SCHEMA_VERSION } from './parts.ts';

/** One vehicle being designed: the whole document, as it is saved, exported and imported. */
export const Build = BuildParts.superRefine((build, ctx) => {
  // Pointers into parts that cannot be read lead nowhere; those parts are named first.
  if (ctx.issues.length > 0) return;
  for (const { path, reason } of danglingReferences(build))
    ctx.addIssue({ code: 'custom', path, message: reason });
});
export type Build = BuildParts;

/** A module of a lamp, by the two ids that name it. */
export interface ModuleRef {
  readonly placementId: string;
  readonly moduleId: string;
}

/** A channel: one colour slot of one module. The unit of timing, current and light. */
export interface ChannelRef extends ModuleRef {
  readonly slot: number;
}

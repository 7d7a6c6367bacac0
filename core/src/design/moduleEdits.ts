import type { ModuleSetup } from './placement.ts';
import type { Build, ModuleRef } from './schema.ts';

/** Changes the setup of the named modules. */
export function changeModules(
  build: Build,
  refs: readonly ModuleRef[],
  patch: Partial<Omit<ModuleSetup, 'id'>>,
): Build {
  const named = new Set(refs.map((r) => `${r.placementId}/${r.moduleId}`));
  const placements = new Set(refs.map((r) => r.placementId));
  return {
    ...build,
    placements: build.placements.map((p) => {
      if (!placements.has(p.id)) return p;
      return { ...p, modules: p.modules.map((m) => (named.has(`${p.id}/${m.id}`) ? changed(m, patch) : m)) };
    }),
  };
}

/** Only colours that it has can be disabled. */
function changed(m: ModuleSetup, patch: Partial<Omit<ModuleSetup, 'id'>>): ModuleSetup {
  const next = { ...m, ...patch };
  const disabled = next.disabled.filter((colour) => next.colours.includes(colour));
  return disabled.length === next.disabled.length ? next : { ...next, disabled };
}

export const changeBuild = (
  build: Build,
  patch: Partial<Pick<Build, 'name' | 'service' | 'notes'>>,
): Build => ({
  ...build,
  ...patch,
});

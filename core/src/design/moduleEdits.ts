import type { Colour } from '../words/colour.ts';
import type { ModuleSetup, Placement } from './placement.ts';
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

/** Disables a colour on the named modules that hold it, so that no function can show it there; or enables it again. */
export function setDisabled(
  build: Build,
  refs: readonly ModuleRef[],
  colour: Colour,
  isDisabled: boolean,
): Build {
  const named = new Set(refs.map((r) => `${r.placementId}/${r.moduleId}`));
  const changes = (p: Placement, m: ModuleSetup): boolean =>
    named.has(`${p.id}/${m.id}`) && m.colours.includes(colour) && m.disabled.includes(colour) !== isDisabled;
  if (!build.placements.some((p) => p.modules.some((m) => changes(p, m)))) return build;
  const set = (m: ModuleSetup): ModuleSetup => ({
    ...m,
    disabled: isDisabled ? [...m.disabled, colour] : m.disabled.filter((c) => c !== colour),
  });
  return {
    ...build,
    placements: build.placements.map((p) =>
      p.modules.some((m) => changes(p, m))
        ? { ...p, modules: p.modules.map((m) => (changes(p, m) ? set(m) : m)) }
        : p,
    ),
  };
}

export const changeBuild = (
  build: Build,
  patch: Partial<Pick<Build, 'name' | 'service' | 'notes'>>,
): Build => ({
  ...build,
  ...patch,
});

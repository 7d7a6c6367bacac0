import type { Build } from '@flarik/core/design/schema';
import type { Drive } from '@flarik/core/resolve/channels';
import { drivenIn } from '@flarik/core/state/driven';
import type { State } from '@flarik/core/state/state';

/** What burns in a state at some moment or other; channels that are claimed and stay dark are left out. */
export const litIn = (build: Build, state: State): Drive[] =>
  drivenIn(build, state).filter((d) => d.spans.length > 0);

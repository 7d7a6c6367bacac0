import { withControls } from '../../design/controlEdits.ts';
import { MOST_OF, type Condition } from '../../design/condition.ts';
import type { ControlFunction } from '../../design/functions.ts';
import { bindSwitch } from '../panelEdits.ts';
import { all, during, is, type FunctionTemplate } from './kit.ts';

const MAIN = 'main-power';

function besides(condition: Condition | null, more: Condition): Condition {
  if (condition === null) return more;
  return condition.kind === 'all' && condition.of.length < MOST_OF
    ? all(more, ...condition.of)
    : all(more, condition);
}

/** What is always on can be asked for nothing: it is on while it is fed. */
const onlyFed = (fn: ControlFunction, fed: Condition): ControlFunction =>
  fn.when.way === 'always' ? { ...fn, when: during(fed) } : { ...fn, enabledBy: besides(fn.enabledBy, fed) };

/** What feeds all that was built in. */
export const READY_POWER: readonly FunctionTemplate[] = [
  {
    id: MAIN,
    name: 'Main power',
    what: 'A switch that cuts all added lamps and outputs, including those on with the ignition off. Factory signals stay. It is part of the master switch.',
    misfit: (b) =>
      b.controls.panels.some((p) => p.controls.some((c) => c.id === MAIN)) ? 'it already exists' : null,
    applyTemplate: (b) => {
      const build = bindSwitch(b, MAIN, 'Main', ['on', 'off']);
      const fed = is(MAIN, 'on');
      return withControls(build, {
        enabledBy: besides(build.controls.enabledBy, fed),
        functions: build.controls.functions.map((fn) =>
          fn.withoutMaster && fn.kind !== 'signal' ? onlyFed(fn, fed) : fn,
        ),
      });
    },
  },
];

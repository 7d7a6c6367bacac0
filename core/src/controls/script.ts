import type { TestStep } from '../design/controls.ts';
import type { InputEvent } from '../design/condition.ts';
import { originalOf } from '../design/inputs.ts';
import { InputError } from '../words/errors.ts';
import type { ControlProgram } from './program.ts';

/** A step of a script: up to a comma or the end of a line, but for what stands in quotes. */
const STEP = /(?:"(?:[^"]|"")*"|[^,\n"])+|"/g;

/** No script is longer. */
const MOST_STEPS = 10_000;

/**
 * Reads events as text: "ignition=on, slide=2, b3=press, b3=long, b1+b2=chord, wait=5000".
 * A press of a button that has values is its going down and up again. A value that has a comma stands in quotes, as
 * mode="slow, rear"; a quote within is written twice.
 *
 * @param where - how to call the text in an error
 * @throws {InputError} which step is wrong, and why
 */
export function readScript(programme: ControlProgram, text: string, where: string): TestStep[] {
  const parts = (text.match(STEP) ?? []).map((part) => part.trim()).filter((part) => part !== '');
  if (parts.length > MOST_STEPS) throw new InputError(where, `has more than ${MOST_STEPS} steps`);
  return parts.flatMap((part, i) => readStep(programme, part, `${where}[${i}]`));
}

function readStep(programme: ControlProgram, part: string, path: string): TestStep[] {
  const cut = part.indexOf('=');
  const name = part.slice(0, cut).trim();
  const value = unquoted(part.slice(cut + 1).trim());
  if (cut < 1 || value === '')
    throw new InputError(path, `'${part}' must be written as input=value, as slide=2, or as wait=MS`);
  if (name === 'wait') {
    if (!/^\d{1,8}$/.test(value) || Number(value) < 1 || Number(value) > 86_400_000)
      throw new InputError(path, `'${part}' must wait for 1 to 86400000 whole milliseconds`);
    return [{ kind: 'wait', ms: Number(value) }];
  }
  return readEvents(programme, name, value, path).map((event) => ({ kind: 'event', event }));
}

function readEvents(programme: ControlProgram, name: string, value: string, path: string): InputEvent[] {
  const { controls } = programme;
  const buttons = new Set(
    controls.panels.flatMap((p) => p.controls.filter((c) => c.kind === 'button').map((c) => c.id)),
  );
  if (value === 'chord') {
    const [one = '', other = '', more] = name.split('+').map((id) => id.trim());
    for (const id of [one, other]) if (!buttons.has(id)) throw new InputError(path, `no button '${id}'`);
    if (more !== undefined || one === other)
      throw new InputError(path, 'a chord is of two different buttons, as b1+b2=chord');
    return [{ kind: 'chord', controls: [one, other] }];
  }
  if (buttons.has(name) && (value === 'press' || value === 'long')) {
    const press = value === 'press' ? 'short' : 'long';
    const id = originalOf(controls, name);
    if (press === 'short' && programme.hasValue(id) && !programme.isDeliberate(id))
      return [
        { kind: 'arrives', input: id, value: 'down' },
        { kind: 'arrives', input: id, value: 'up' },
      ];
    return [{ kind: 'press', control: name, press }];
  }
  const id = originalOf(controls, name);
  const input = programme.inputs.find((candidate) => candidate.id === id);
  if (input === undefined)
    throw new InputError(
      path,
      buttons.has(name)
        ? `button '${name}' only gives presses: ${name}=press, or ${name}=long`
        : `no input '${name}'; there are ${[...programme.inputs.map((i) => i.id), ...buttons].join(', ')}`,
    );
  if (!input.values.includes(value))
    throw new InputError(path, `'${name}' is never '${value}', only ${input.values.join(', ')}`);
  return [{ kind: 'arrives', input: id, value }];
}

const unquoted = (value: string): string =>
  /^"(?:[^"]|"")*"$/.test(value) ? value.slice(1, -1).replaceAll('""', '"') : value;

const quoted = (value: string): string =>
  /[",\n]|^\s|\s$/.test(value) ? `"${value.replaceAll('"', '""')}"` : value;

/** A step as text that `readScript` reads. */
export function stepText(step: TestStep): string {
  if (step.kind === 'wait') return `wait=${step.ms}`;
  const { event } = step;
  switch (event.kind) {
    case 'press':
      return `${event.control}=${event.press === 'short' ? 'press' : 'long'}`;
    case 'chord':
      return `${event.controls.join('+')}=chord`;
    case 'arrives':
      return `${event.input}=${quoted(event.value)}`;
  }
}

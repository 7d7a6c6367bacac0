import { changeBuild } from '@flarik/core/design/moduleEdits';
import { describe, expect, test } from 'vitest';
import { History } from './history';
import { demoBuild } from '@flarik/core/test/reference/demo';

const build = demoBuild('ks-12');

const named = (name: string) => changeBuild(build, { name });

describe('undo and redo', () => {
  test('go back and forth over the very documents', () => {
    const history = new History();
    const [one, two] = [named('One'), named('Two')];
    history.record('First', build, one, null);
    history.record('Second', one, two, null);
    expect(history.undoLabel).toBe('Second');
    expect(history.undo()).toBe(one);
    expect(history.undo()).toBe(build);
    expect(history.undo()).toBeNull();
    expect(history.redoLabel).toBe('First');
    expect(history.redo()).toBe(one);
    expect(history.redo()).toBe(two);
    expect(history.redo()).toBeNull();
  });

  test('a new step forgets what was undone', () => {
    const history = new History();
    history.record('First', build, named('One'), null);
    history.undo();
    history.record('Other', build, named('Other'), null);
    expect(history.redoLabel).toBeNull();
  });

  test('steps of one gesture are one step, but not across an undo', () => {
    const history = new History();
    const [one, two, three] = [named('One'), named('Two'), named('Three')];
    history.record('Nudge', build, one, 'nudge a');
    history.record('Nudge', one, two, 'nudge a');
    expect(history.undo()).toBe(build);
    expect(history.redo()).toBe(two);
    history.record('Nudge', two, three, 'nudge a');
    expect(history.undo()).toBe(two);
  });
});

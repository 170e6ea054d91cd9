import { describe, expect, it } from 'vitest';
import { actionOf, focusedIn, type KeyActions, type Press } from './keys';

/** What a press does, as "history 1"; null when it is left to the browser. */
function does(press: Partial<Press>, singleKeys = true): string | null {
  let done: string | null = null;
  const actions = new Proxy({} as KeyActions, {
    get: (_, name) => (argument?: unknown) => {
      done = [String(name), argument].filter((part) => part !== undefined).join(' ');
    }
  });
  actionOf({ key: '', control: false, alt: false, shift: false, in: null, ...press }, singleKeys)?.(actions);
  return done;
}

describe('the keys of the workspace', () => {
  it.each([
    [{ key: 'Enter', control: true }, 'render'],
    [{ key: '.', control: true }, 'stop'],
    [{ key: 'z', control: true }, 'history -1'],
    [{ key: 'Z', control: true, shift: true }, 'history 1'],
    [{ key: 'Escape' }, 'escape'],
    [{ key: '3' }, 'brief 3'],
    [{ key: '<' }, 'picture -1'],
    [{ key: ';' }, 'proof -1'],
    [{ key: 'x' }, 'zoom pixel'],
    [{ key: '?' }, 'keys'],
    [{ key: 'q' }, null]
  ])('%o: %s', (press, done) => expect(does(press)).toBe(done));

  it('leave Alt with arrows to the browser', () => {
    expect(does({ key: 'ArrowLeft', alt: true })).toBeNull();
  });

  it('do nothing but Ctrl and Esc while one types, and undo works in a list of choices', () => {
    expect(does({ key: 'w', in: 'text' })).toBeNull();
    expect(does({ key: 'z', control: true, in: 'text' })).toBeNull();
    expect(does({ key: 'z', control: true, in: 'control' })).toBe('history -1');
    expect(does({ key: 'Enter', control: true, in: 'text' })).toBe('render');
  });

  it('can be turned off where they are one letter, digit or sign', () => {
    for (const key of ['w', '3', ',', '<']) expect(does({ key }, false)).toBeNull();
    expect(does({ key: '?' }, false)).toBe('keys');
    expect(does({ key: 'Enter', control: true }, false)).toBe('render');
  });
});

describe('what has the focus', () => {
  it.each([
    [{ tagName: 'INPUT', type: 'text' }, 'text'],
    [{ tagName: 'TEXTAREA' }, 'text'],
    [{ tagName: 'INPUT', type: 'radio' }, null],
    [{ tagName: 'INPUT', type: 'range' }, 'control'],
    [{ tagName: 'SELECT' }, 'control'],
    [{ tagName: 'BUTTON' }, null],
    [null, null]
  ])('%o is in %s', (target, within) => expect(focusedIn(target as never)).toBe(within));
});

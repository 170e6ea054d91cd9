import { Vector3 } from 'three';
import { describe, expect, it } from 'vitest';
import { movedByKey } from './key-moves';

const from = { position: new Vector3(0, 1.6, 4), target: new Vector3(0, 1, 0), up: new Vector3(0, 1, 0) };
const press = (key: string, shiftKey = false, at = from) => movedByKey({ key, shiftKey }, at, 0.3)!;

describe('keys on the stage', () => {
  it('walk ahead and aside on a level, with Shift faster, and look on in the same direction', () => {
    expect(press('w').position.toArray()).toEqual([0, 1.6, 3.7]);
    expect(press('w').target.toArray()).toEqual([0, 1, -0.3]);
    expect(press('D').position.x).toBeCloseTo(0.3);
    expect(press('s', true).position.z).toBeCloseTo(5.2);
    expect(press('PageUp').position.y).toBeCloseTo(1.9);
  });
  it('look round from where one stands', () => {
    const { position, target } = press('q');
    expect(position.toArray()).toEqual([0, 1.6, 4]);
    // to the left, as far off and as high as before
    expect(target.x).toBeLessThan(-0.1);
    expect(target.y).toBeCloseTo(1);
    expect(target.distanceTo(position)).toBeCloseTo(from.target.distanceTo(from.position));
  });
  it('turn about the target and go nearer', () => {
    const turned = press('ArrowRight');
    expect(turned.target.toArray()).toEqual([0, 1, 0]);
    expect(turned.position.distanceTo(turned.target)).toBeCloseTo(from.position.distanceTo(from.target));
    expect(press('+').position.distanceTo(from.target)).toBeLessThan(from.position.distanceTo(from.target));
    expect(press('ArrowUp', true).target.y).toBeGreaterThan(1);
  });
  it('walk up in the picture when one looks straight down, and leave other keys alone', () => {
    const down = { position: new Vector3(0, 9, 0), target: new Vector3(0, 0, 0), up: new Vector3(0, 0, -1) };
    expect(press('w', false, down).position.z).toBeGreaterThan(0.2);
    expect(movedByKey({ key: 'x', shiftKey: false }, from, 0.3)).toBeNull();
  });
});

import { describe, expect, it } from 'vitest';
import { sliderValue } from './slider-keys';

const of = { value: 40, min: -180, max: 180, step: 2 };
const pressed = (key: string, shiftKey = false) => sliderValue({ key, shiftKey }, of);

describe('a slider by keys', () => {
  it('rises to the right and up, and falls to the left and down', () => {
    expect(['ArrowRight', 'ArrowUp', 'ArrowLeft', 'ArrowDown'].map((key) => pressed(key))).toEqual([42, 42, 38, 38]);
  });
  it('goes ten steps with Shift and by pages, and to its ends', () => {
    expect([pressed('ArrowRight', true), pressed('PageUp'), pressed('PageDown'), pressed('PageUp', true)]).toEqual([
      60, 60, 20, 60
    ]);
    expect([pressed('Home'), pressed('End')]).toEqual([-180, 180]);
  });
  it('leaves every other key alone', () => {
    expect(['Tab', 'a', 'Enter'].map((key) => pressed(key))).toEqual([null, null, null]);
  });
});

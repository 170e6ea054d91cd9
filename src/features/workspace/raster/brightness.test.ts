import { describe, expect, it } from 'vitest';
import { brightnessRatio } from './brightness';

describe('how bright a picture is beside a drawing', () => {
  // two rows: the drawing covers the lower one alone, and is kept from the bottom up
  const drawing = Uint8Array.from([100, 100, 100, 255, 100, 100, 100, 255, 0, 0, 0, 0, 0, 0, 0, 0]);

  it('compares linear luminance where the drawing covers something', () => {
    // sRGB 188 is half of white in linear light (IEC 61966-2-1)
    const picture = Uint8ClampedArray.from([255, 255, 255, 255, 255, 255, 255, 255, ...grey(188), ...grey(188)]);
    expect(brightnessRatio(picture, drawing, 2, 2)).toBeCloseTo((0.503 * 255) / 100, 2);
  });

  it('knows nothing of a drawing that covers nothing, or of a black picture', () => {
    const picture = Uint8ClampedArray.from([...grey(9), ...grey(9), ...grey(0), ...grey(0)]);
    expect(brightnessRatio(picture, new Uint8Array(16), 2, 2)).toBeNull();
    expect(brightnessRatio(picture, drawing, 2, 2)).toBeNull();
  });
});

const grey = (v: number) => [v, v, v, 255];

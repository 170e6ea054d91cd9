import { describe, expect, it } from 'vitest';
import { luminance } from '../../color/spaces';
import { makeRoom, ROOM_KEYS, ROOMS } from './room';

const at = (room: ReturnType<typeof makeRoom>, x: number, y: number, z: number) => {
  const u = Math.atan2(z, x) / (2 * Math.PI) + 0.5;
  const v = Math.acos(y / Math.hypot(x, y, z)) / Math.PI;
  const o =
    (Math.min(room.height - 1, Math.floor(v * room.height)) * room.width +
      Math.min(room.width - 1, Math.floor(u * room.width))) *
    3;
  return luminance(room.pixels.subarray(o, o + 3));
};

describe('a room as surroundings', () => {
  it('has its windows where they are said to be, and walls far darker', () => {
    // the wall of windows lies at -X
    const room = makeRoom('windows');
    expect(at(room, -1, 0, 0.2)).toBeGreaterThan(3000);
    expect(at(room, 1, 0, 0)).toBeLessThan(1200);
    // top light comes from above, the floor is darker than the walls
    const gallery = makeRoom('gallery');
    expect(at(gallery, 0.2, 1, 0)).toBeGreaterThan(at(gallery, 1, 0, 0) * 2);
    expect(at(gallery, 0, -1, 0)).toBeLessThan(at(gallery, 1, 0, 0));
  });
  it('gives its walls the mean of an integrating sphere: colour times flux over area over 1 less what comes back', () => {
    const { half, wall, floor, ceiling, openings } = ROOMS.gallery;
    const [x, y, z] = half;
    const area = 8 * (x * y + y * z + z * x);
    const open = openings.reduce((sum, o) => sum + 4 * x * z * o.half[0] * o.half[1], 0);
    const reflected = (wall[1] * 8 * (x * y + y * z) + (ceiling[1] + floor[1]) * 4 * x * z) / area;
    const expected = (wall[1] * openings[0]!.radiance[1] * open) / area / (1 - reflected);
    const room = makeRoom('gallery');
    const p = (Math.floor(room.height / 2) * room.width + Math.floor(room.width * 0.5)) * 3;
    expect(room.pixels[p + 1]! / expected).toBeCloseTo(1, 1);
  });
  it('is light everywhere, in six kinds', () => {
    expect(ROOM_KEYS).toHaveLength(6);
    for (const key of ROOM_KEYS) expect(makeRoom(key).pixels.every((v) => v > 0)).toBe(true);
  });
});

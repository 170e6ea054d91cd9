/** Lamps that a picture adds: what a new one is like, and how it takes its place on a surface or in an opening. */
import type { FreeViewpoint } from '../../core/camera/viewpoint';
import { add, mix, scale, type Vec3 } from '../../core/math/vec3';
import type { AddedForm, AddedLamp } from '../../core/scene/added-lamps';
import type { Opening } from '../../core/scene/opening';

export type NewLamp = Partial<AddedLamp>;

export const ADDED_FORM_NAMES: Record<AddedForm, string> = {
  point: 'Point',
  spot: 'Spot',
  panel: 'Panel',
  strip: 'Strip',
  window: 'Window panel'
};

// What such lamps are like (common practice, no source).
const FIRST: Record<AddedForm, NewLamp> = {
  point: { lumen: 800, kelvin: 2700 },
  spot: { lumen: 700, kelvin: 3000, beam_deg: 36 },
  panel: { lumen: 3600, kelvin: 4000, width_m: 0.6, height_m: 0.6 },
  strip: { lumen: 2400, kelvin: 3500, width_m: 1.2, height_m: 0.06 },
  window: { lumen: 12_000, kelvin: 6000, width_m: 1, height_m: 1.4 }
};
/** Luminance of a window by an overcast sky, cd/m2 (common practice, no source). */
const WINDOW_CDM2 = 4000;
// A bare lamp hangs clear of what it hangs on; a flat one lies on it.
const CLEAR_M: Record<AddedForm, number> = { point: 0.12, spot: 0.08, panel: 0.02, strip: 0.02, window: 0.02 };
const BEHIND_PANE_M = 0.02;

const triple = (v: Vec3): [number, number, number] => [
  Math.round(v[0] * 1e4) / 1e4,
  Math.round(v[1] * 1e4) / 1e4,
  Math.round(v[2] * 1e4) / 1e4
];

/**
 * In the middle of what is seen, shining down, until it is placed. Names tell one from another without a number, which
 * would make them one group.
 */
export function newLamp(form: AddedForm, view: FreeViewpoint, there: readonly AddedLamp[]): AddedLamp {
  const base = `Own ${ADDED_FORM_NAMES[form].toLowerCase()}`;
  const taken = new Set(there.map((l) => l.name));
  let name = base;
  for (let letter = 66; taken.has(name); letter++) name = `${base} ${String.fromCharCode(letter)}`;
  const position_m = triple(mix(view.position_m, view.target_m, 0.7));
  return {
    name,
    form,
    position_m,
    direction: form === 'window' ? [0, 0, 1] : [0, -1, 0],
    turn_deg: 0,
    width_m: 0.6,
    height_m: 0.6,
    beam_deg: 36,
    lumen: 800,
    kelvin: 3000,
    tint: 0,
    photometry: null,
    ...FIRST[form]
  };
}

/** On a surface, shining away from it. */
export const hangAt = (form: AddedForm, point: Vec3, normal: Vec3): NewLamp => ({
  position_m: triple(add(point, scale(normal, CLEAR_M[form]))),
  direction: triple(normal)
});

/** Behind the pane as one sees it, of the opening's size, as bright as a window. */
export function fillOpening(lamp: AddedLamp, { middle, normal, width_m, height_m, depth_m }: Opening): NewLamp {
  const [width, height] = [
    Math.max(0.01, Math.round(width_m * 1000) / 1000),
    Math.max(0.01, Math.round(height_m * 1000) / 1000)
  ];
  return {
    ...lamp,
    position_m: triple(add(middle, scale(normal, -(depth_m / 2 + BEHIND_PANE_M)))),
    direction: triple(normal),
    turn_deg: 0,
    width_m: width,
    height_m: height,
    lumen: Math.round(WINDOW_CDM2 * Math.PI * width * height)
  };
}

/** A brief after its model was given another size or another upright axis: what stands in the model’s metres follows it. */
import type { Vec3 } from '../math/vec3';
import { assertNever } from '../result/assert-never';
import type { Brief } from './brief';
import { BRIEF } from './fields/brief-fields';
import type { Field } from './fields/field';
import { fieldsOf, type Values } from './fields/walk';

export interface Rescaling {
  /** Metres that a metre of before is now. */
  factor: number;
  /** About the X axis, right-handed. */
  turn_deg: 0 | 90 | -90;
}

/** Places, sizes and distances of viewpoint, lamps, openings, studio and ground. A sky and the eye stay where they are. */
export function rescaleBrief(brief: Brief, by: Rescaling): Brief {
  const { viewpoint, lamps, ground, surroundings, openings, pose, placed } = BRIEF.fields;
  const next: Brief = {
    ...brief,
    viewpoint: moved(viewpoint, brief.viewpoint, by, '') as Brief['viewpoint'],
    lamps: moved(lamps, brief.lamps, by, '') as Brief['lamps'],
    ground: moved(ground, brief.ground, by, '') as Brief['ground'],
    pose: moved(pose, brief.pose, by, '') as Brief['pose'],
    placed: moved(placed, brief.placed, by, '') as Brief['placed'],
    openings: moved(openings, brief.openings, by, '') as Brief['openings']
  };
  if (brief.surroundings.kind !== 'studio') return next;
  return { ...next, surroundings: moved(surroundings, brief.surroundings, by, '') as Brief['surroundings'] };
}

export const rescaleViewpoint = (viewpoint: Brief['viewpoint'], by: Rescaling): Brief['viewpoint'] =>
  moved(BRIEF.fields.viewpoint, viewpoint, by, '') as Brief['viewpoint'];

/** The axes of a point after the turn. */
export function turned([x, y, z]: Vec3, turn_deg: Rescaling['turn_deg']): Vec3 {
  return turn_deg === 0 ? [x, y, z] : turn_deg === 90 ? [x, -z, y] : [x, z, -y];
}

// turns about the axes go with the axes, as directions do
const DIRECTIONS = new Set(['direction', 'normal', 'turn_deg']);

function moved(field: Field, value: unknown, by: Rescaling, name: string): unknown {
  if (value === null || value === undefined) return value;
  switch (field.type) {
    case 'number':
      return field.unit === 'm' ? Math.min(field.max, Math.max(field.min, (value as number) * by.factor)) : value;
    case 'vector': {
      const at = value as Vec3;
      if (DIRECTIONS.has(name)) return turned(at, by.turn_deg);
      return name.endsWith('_m') ? turned(at, by.turn_deg).map((v) => v * by.factor) : value;
    }
    case 'nullable':
      return moved(field.of, value, by, name);
    case 'list':
      return (value as readonly unknown[]).map((item) => moved(field.of, item, by, name));
    case 'object':
    case 'union': {
      const children = fieldsOf(field, value as Values) ?? {};
      const parts = Object.entries(children).map(([key, child]) => [
        key,
        moved(child, (value as Values)[key], by, key)
      ]);
      return {
        ...(value as Values),
        ...Object.fromEntries(parts.filter(([key]) => (key as string) in (value as Values)))
      };
    }
    case 'flag':
    case 'text':
    case 'choice':
      return value;
    default:
      return assertNever(field, 'field');
  }
}

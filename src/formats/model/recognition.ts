/** What is known of a model before it is brought in, and what has to be asked. */
import { type Document, getBounds } from '@gltf-transform/core';
import { guessUnit, isPlausible } from '../../core/units/guess-unit';
import type { LengthUnit } from '../../core/units/units';
import { type Recognised, readModel } from './index';
import type { ModelReader } from './reader';

export interface Recognition {
  /** "GLB" */
  format: string;
  source: string;
  /** Extents along X, Y, Z in the file's own unit; null when it holds nothing. */
  size: [number, number, number] | null;
  /** What has to be asked: what the format does not state, and what it states but cannot be right. */
  asks: ('unit' | 'up')[];
  guess: { unit: LengthUnit; up: 'y' | 'z' };
}

export async function examine(recognised: Recognised): Promise<Recognition> {
  const { states } = recognised.reader;
  const { document, format, source } = await readModel(recognised);
  const { size, largest, unit, up } = guessOf(document, states);
  const unitAsked = size !== null && (states.unit === undefined || !isPlausible(largest, states.unit));
  // a file that breaks its format's rule on the unit may break it on the axis too
  const upAsked = size !== null && (states.up === undefined || unitAsked);
  return {
    format,
    source,
    size,
    asks: [...(unitAsked ? (['unit'] as const) : []), ...(upAsked ? (['up'] as const) : [])],
    guess: { unit, up }
  };
}

/** How large a document is in its own unit, and what it is probably drawn in. */
export function guessOf(document: Document, states: ModelReader['states']) {
  const scene = document.getRoot().getDefaultScene() ?? document.getRoot().listScenes()[0];
  const bounds = scene ? getBounds(scene) : null;
  const extents = bounds ? ([0, 1, 2] as const).map((i) => bounds.max[i] - bounds.min[i]) : [];
  const size = extents.length === 3 && extents.every(Number.isFinite) ? (extents as [number, number, number]) : null;
  const largest = size ? Math.max(...size) : 0;
  return { size, largest, unit: guessUnit(largest, states.unit ?? null), up: states.up ?? ('z' as const) };
}

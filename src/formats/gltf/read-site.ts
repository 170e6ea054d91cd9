/**
 * Where a model stands: `site` in the extras of its scene, with `latitude_deg`, `longitude_deg` and `north_deg` (how
 * far north lies to the left of
 * -Z, seen from above). Our own convention, as glTF has none; other readers may pass the same on.
 */
import type { Document } from '@gltf-transform/core';

export interface Site {
  latitude_deg: number;
  longitude_deg: number;
  north_deg: number;
}

/** Null where the file says nothing; what is impossible is told in `missing`. */
export function readSite(document: Document, missing: string[]): Site | null {
  const extras = (document.getRoot().getDefaultScene() ?? document.getRoot().listScenes()[0])?.getExtras();
  const site = extras?.site as Partial<Site> | undefined;
  if (site === undefined) return null;
  const within = (value: unknown, most: number): value is number =>
    typeof value === 'number' && Math.abs(value) <= most;
  const { latitude_deg, longitude_deg, north_deg = 0 } = site ?? {};
  if (within(latitude_deg, 90) && within(longitude_deg, 180) && within(north_deg, 360))
    return { latitude_deg, longitude_deg, north_deg };
  missing.push(
    `The site in the file (${JSON.stringify(site).slice(0, 80)}) is impossible: latitude lies within ` +
      `90 degrees, longitude within 180, north within 360; set it in Surroundings`
  );
  return null;
}

/** The brief of a small picture that stands for one which has no proof yet: the same view and light, little else. */
import { resolveSize } from '../output/size';
import type { Brief } from './brief';

/** The longer side: twice that of the list of pictures, for fine screens. */
export const THUMBNAIL_PX = 256;
const SAMPLES = 16;

export function thumbnailBrief(brief: Brief): Brief {
  const { width_px, height_px } = resolveSize(brief.size);
  const k = THUMBNAIL_PX / Math.max(width_px, height_px);
  const side = (px: number) => Math.max(16, Math.round(px * k));
  return {
    ...brief,
    bleed_mm: 0,
    patch: null,
    size: { width_px: side(width_px), height_px: side(height_px) },
    quality: {
      ...brief.quality,
      scale: 1,
      samples: SAMPLES,
      min_samples: Math.min(brief.quality.min_samples, SAMPLES),
      grain: null,
      layers: false,
      aovs: false
    },
    finish: { ...brief.finish, denoise: 1, lamps: [], masks: [] }
  };
}

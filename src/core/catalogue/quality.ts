/**
 * The four quality steps, named by what the image is for. `scale` is the share of the full size that is rendered;
 * `samples` the limit per pixel; `grain` the raw grain in L* at which a tile is done, null for all samples. Grain and
 * least samples are set so that, denoised and one to one, Study has a structural similarity of 0.96 to the truth,
 * Present 0.985 and Exhibit 0.995: `npm run bench:quality`, docs/quality.md. Bounces: eight look like many more in most
 * rooms (common practice, no source), but light takes four to come through the two walls of a glass and out again.
 */
export interface QualityStep {
  name: string;
  note: string;
  scale: number;
  samples: number;
  grain: number | null;
  /** Samples that a tile has before its grain may end it: fine detail needs them, for the filter takes it for grain. */
  min_samples: number;
  bounces: number;
}

export const QUALITY_STEPS = {
  glance: {
    name: 'Glance',
    note: 'a quarter of the size, quickly: is the light right?',
    scale: 0.25,
    samples: 16,
    grain: null,
    min_samples: 16,
    bounces: 8
  },
  study: {
    name: 'Study',
    note: 'half the size: is the picture right?',
    scale: 0.5,
    samples: 32,
    grain: 10,
    min_samples: 16,
    bounces: 10
  },
  present: {
    name: 'Present',
    note: 'whole size, for a client’s table',
    scale: 1,
    samples: 256,
    grain: 5,
    min_samples: 64,
    bounces: 12
  },
  exhibit: {
    name: 'Exhibit',
    note: 'whole size, as clean as it gets',
    scale: 1,
    samples: 2048,
    grain: 1,
    min_samples: 256,
    bounces: 16
  }
} as const satisfies Record<string, QualityStep>;

/** What a step sets of a brief's quality, but for its name. */
export function stepSettings(
  key: QualityKey
): Pick<QualityStep, 'samples' | 'grain' | 'min_samples' | 'bounces' | 'scale'> {
  const { samples, grain, min_samples, bounces, scale } = QUALITY_STEPS[key];
  return { samples, grain, min_samples, bounces, scale };
}

export type QualityKey = keyof typeof QUALITY_STEPS;
export const QUALITY_KEYS = Object.keys(QUALITY_STEPS) as QualityKey[];

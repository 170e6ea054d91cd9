/**
 * Kinds of work. A lane is a line of work of its own: jobs of one lane wait for each other, jobs of different lanes do
 * not, so that a finish or a delivery never waits behind a render. Within a lane the higher priority goes first, then
 * the older job.
 *
 * A denoising is the last step of a render or a finish and no kind of its own: it needs the machine that the next render
 * would take, and nobody can use a film between the two.
 */
export const JOB_KINDS = {
  /** A whole picture. */
  render: { lane: 'render', priority: 0 },
  /** A rectangle of one, which somebody waits for. */
  patch: { lane: 'render', priority: 1 },
  /** A film that is there, developed with another finish. */
  finish: { lane: 'finish', priority: 0 },
  /** A file to hand over. */
  deliver: { lane: 'deliver', priority: 0 },
  /** A model or another file that is read into a project or a library. */
  import: { lane: 'import', priority: 0 },
  /** A forecast, what costs time, what lamps contribute, a detail at full size. */
  measure: { lane: 'measure', priority: 0 },
  /** The picture of saved surroundings. */
  preview: { lane: 'preview', priority: 0 }
} as const satisfies Record<string, { lane: string; priority: number }>;

export type JobKind = keyof typeof JOB_KINDS;
export type Lane = (typeof JOB_KINDS)[JobKind]['lane'];

/** Lanes that the render service works on. Jobs of the others run where they were asked for, while the asker waits. */
export const SERVICE_LANES = ['render', 'finish'] as const satisfies readonly Lane[];
export type ServiceLane = (typeof SERVICE_LANES)[number];

/** Cumulus clouds as a brief has them; what they look like is in clouds.ts. */
export interface Cumulus {
  /** Share of the layer that is covered. */
  cover: number;
  /** Where the clouds' level bases lie above the ground, m. */
  base_m: number;
  /** Whole number; another one is another sky. */
  seed: number;
  /** `as it comes`, or the clouds shifted until the sun is `free` or `behind` them. */
  sun: 'as it comes' | 'free' | 'behind';
}
export const CUMULUS_SUNS = ['as it comes', 'free', 'behind'] as const;

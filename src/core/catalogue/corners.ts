/** Corners of a picture. */
export const CORNERS = ['upper left', 'upper right', 'lower left', 'lower right'] as const;
export type Corner = (typeof CORNERS)[number];

const POINTS = ['north', 'north-east', 'east', 'south-east', 'south', 'south-west', 'west', 'north-west'] as const;

/** Name of the nearest of eight compass points; degrees clockwise from north. */
export const compass = (azimuthDeg: number): string => POINTS[Math.round((((azimuthDeg % 360) + 360) % 360) / 45) % 8]!;

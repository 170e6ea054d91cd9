/** Places a sky can be computed for without typing degrees: the town of the demo, and round latitudes. */
export interface Place {
  name: string;
  latitude_deg: number;
  longitude_deg: number;
  /** Offset of local time from UTC in hours, without summer time. */
  utc_offset_h: number;
}

export const PLACES: readonly Place[] = [
  { name: 'Lantern Hill, Ostrel', latitude_deg: 49.4, longitude_deg: 15.6, utc_offset_h: 1 },
  { name: 'On the equator', latitude_deg: 0, longitude_deg: 0, utc_offset_h: 0 },
  { name: 'Northern city, 60° north', latitude_deg: 60, longitude_deg: 25, utc_offset_h: 2 },
  { name: 'Southern city, 34° south', latitude_deg: -34, longitude_deg: 151, utc_offset_h: 10 }
];

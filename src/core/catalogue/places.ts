/** Places that are offered before a town is searched for: that of the demo, and round latitudes. */
export interface Place {
  name: string;
  latitude_deg: number;
  longitude_deg: number;
}

export const PLACES: readonly Place[] = [
  { name: 'Lantern Hill, Ostrel', latitude_deg: 49.4, longitude_deg: 15.6 },
  { name: 'On the equator', latitude_deg: 0, longitude_deg: 0 },
  { name: 'Northern city, 60° north', latitude_deg: 60, longitude_deg: 25 },
  { name: 'Southern city, 34° south', latitude_deg: -34, longitude_deg: 151 }
];

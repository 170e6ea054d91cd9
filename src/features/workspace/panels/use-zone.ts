'use client';
/** The time zone of coordinates; its table is fetched when a sky is first looked at. */
import { useEffect, useState } from 'react';

type Lookup = (latitude: number, longitude: number) => string;
let table: Lookup | null = null;

export async function zoneAt(latitude_deg: number, longitude_deg: number): Promise<string> {
  table ??= ((await import('@photostructure/tz-lookup')) as unknown as { default: Lookup }).default;
  return table(latitude_deg, longitude_deg);
}

/** IANA name; null until it is known. */
export function useZone(latitude_deg: number, longitude_deg: number): string | null {
  const [zone, setZone] = useState<string | null>(null);
  useEffect(() => {
    let left = false;
    void zoneAt(latitude_deg, longitude_deg).then((name) => !left && setZone(name));
    return () => {
      left = true;
    };
  }, [latitude_deg, longitude_deg]);
  return zone;
}

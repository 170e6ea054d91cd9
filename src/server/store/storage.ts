/** Bytes stored per area, as sums. Films are summed from their proofs (proofs.ts). */
import { prepared } from './database';

export type StorageArea = 'models' | 'packs';

export const addStorage = (area: StorageArea, bytes: number) =>
  prepared(
    'INSERT INTO storage (area, bytes) VALUES (:area, :bytes) ON CONFLICT (area) DO UPDATE SET bytes = bytes + :bytes'
  ).run({ area, bytes });

export const setStorage = (area: StorageArea, bytes: number) =>
  prepared(
    'INSERT INTO storage (area, bytes) VALUES (:area, :bytes) ON CONFLICT (area) DO UPDATE SET bytes = :bytes'
  ).run({ area, bytes });

export const storageOf = (area: StorageArea): number =>
  (prepared('SELECT bytes FROM storage WHERE area = ?').get(area) as { bytes: number } | undefined)?.bytes ?? 0;

/** For recounts: proofs and what their files were said to take. */
export const filmSizes = () =>
  prepared("SELECT id, disk_bytes FROM proofs WHERE state IN ('done', 'kept')").all() as {
    id: string;
    disk_bytes: number;
  }[];

export const setFilmSize = (proof: string, bytes: number) =>
  prepared('UPDATE proofs SET disk_bytes = ? WHERE id = ?').run(bytes, proof);

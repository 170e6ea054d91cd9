/** Whether anything has changed, which is cheap to ask often, and the counters that say what. */
import { STORAGE_STATES, storageTroubleOf } from '../../core/result/storage-trouble';
import { storageState } from '../files/storage-state';
import { databaseVersion } from '../store/database';
import { allStamps } from '../store/stamps';

/** The scope that tells the place of STORAGE_STATES which the storage is in. */
export const STORAGE_SCOPE = 'storage';

export const changeVersion = (): string => `${storageState()} ${readable(databaseVersion, 0)}`;

export const changeStamps = (): Map<string, number> =>
  readable(allStamps, new Map<string, number>()).set(STORAGE_SCOPE, STORAGE_STATES.indexOf(storageState()));

/** `otherwise` while the database cannot be read. */
function readable<T>(read: () => T, otherwise: T): T {
  try {
    return read();
  } catch (error) {
    if (storageTroubleOf(error) === null) throw error;
    return otherwise;
  }
}

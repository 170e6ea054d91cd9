/** Whether data can be written, looked at about once a second. */
import { accessSync, constants } from 'node:fs';
import { type StorageState, storageTroubleOf } from '../../core/result/storage-trouble';
import { config } from '../config';
import { freeBytes } from './free-bytes';

const LOOK_MS = 1000;
let looked_ms = Number.NEGATIVE_INFINITY;
let state: StorageState = 'fine';

/** A lock of the database is not seen here: it is met by who writes. */
export function storageState(now = Date.now()): StorageState {
  if (now - looked_ms > LOOK_MS) {
    looked_ms = now;
    state = look();
  }
  return state;
}

function look(): StorageState {
  try {
    accessSync(config.dataDir, constants.R_OK | constants.W_OK);
  } catch (error) {
    return storageTroubleOf(error) ?? 'fine';
  }
  return freeBytes() < config.spareBytes ? 'full' : 'fine';
}

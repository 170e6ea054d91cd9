/** Whether anything has changed, which is cheap to ask often, and the counters that say what. */
export { databaseVersion } from '../store/database';
export { allStamps } from '../store/stamps';

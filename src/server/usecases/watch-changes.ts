/** What tells a page that something has changed: a cheap question that is asked often, and the counters that answer it. */
export { databaseVersion } from '../store/database';
export { allStamps } from '../store/stamps';

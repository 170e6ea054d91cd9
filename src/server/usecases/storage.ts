/** The place that data is kept on, as requests meet it. */
export { untilWritable } from '../store/database';
export { storageState } from '../files/storage-state';

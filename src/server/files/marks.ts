/** Marks in the data folder: something that is done once for it. */
import { existsSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { config } from '../config';

const pathOf = (name: string): string => join(config.dataDir, name);

export const isMarked = (name: string): boolean => existsSync(pathOf(name));
export const mark = (name: string): void => writeFileSync(pathOf(name), '');

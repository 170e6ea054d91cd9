/** Writes the material sheet as a GLB: node build/sheet.mjs FILE */
import { writeFile } from 'node:fs/promises';
import { materialSheet } from './models/material-sheet';
import { writeModel } from './write-model';

await writeFile(process.argv[2]!, await writeModel(materialSheet()));

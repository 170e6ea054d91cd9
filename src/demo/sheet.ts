/** Writes a sheet's model as a GLB: node build/sheet.mjs NAME FILE */
import { writeFile } from 'node:fs/promises';
import { hut, perihelionLamp, readingRoom } from './models';
import { materialSheet } from './models/material-sheet';
import { solidSheet } from './models/solid-sheet';
import { waterSheet } from './models/water-sheet';
import { writeModel } from '../drawing/write-model';

const SHEETS = {
  materials: materialSheet,
  solids: solidSheet,
  water: waterSheet,
  room: readingRoom,
  hut,
  lamp: perihelionLamp
};
const [name, file] = process.argv.slice(2) as [keyof typeof SHEETS, string];
await writeFile(file, await writeModel(SHEETS[name]()));

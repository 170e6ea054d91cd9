/** sphaera import FILE [--unit mm|cm|m|in|ft] [--up y|z] [--fineness coarse|medium|fine] --out model.glb [--report report.json] */
import { writeFile } from 'node:fs/promises';
import { FINENESSES } from '../core/units/read-as';
import { type LengthUnit, METRES_PER_UNIT } from '../core/units/units';
import { importModel } from '../server/usecases/import-model';
import { readArguments } from './arguments';
import { BadInput } from './bad-input';
import { modelFiles } from './model-files';

export async function importCommand(args: string[]): Promise<number> {
  const { positional: file, options } = readArguments(args, ['unit', 'up', 'fineness', 'out', 'report']);
  if (!options.out) throw new BadInput('say where the model goes: --out model.glb');
  const { unit = null, up = null } = options;
  if (unit !== null && !Object.hasOwn(METRES_PER_UNIT, unit))
    throw new BadInput(`--unit must be one of ${Object.keys(METRES_PER_UNIT).join(', ')}, got "${unit}"`);
  if (up !== null && up !== 'y' && up !== 'z') throw new BadInput(`--up must be y or z, got "${up}"`);
  const fineness = FINENESSES.find((one) => one === (options.fineness ?? 'medium'));
  if (!fineness) throw new BadInput(`--fineness must be one of ${FINENESSES.join(', ')}, got "${options.fineness}"`);
  const files = await modelFiles(file);
  const result = await importModel({ files, unit: unit as LengthUnit | null, up, fineness });
  if (!result.ok) throw new BadInput(`${file}: ${result.message}`);
  await writeFile(options.out, result.value.glb);
  if (options.report) await writeFile(options.report, `${JSON.stringify(result.value.report, null, 2)}\n`);
  return 0;
}

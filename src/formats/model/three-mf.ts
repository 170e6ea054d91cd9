/** 3MF (3MF Consortium, core specification 1.3): a ZIP whose model says its unit; Z is up. */
import { ModelRefused } from './model-refused';
import { refuseDeepXml } from './read-text';
import type { ModelFile, ModelFiles, ModelReader, ReadModel } from './reader';

const METRES: Record<string, number> = {
  micron: 1e-6,
  millimeter: 1e-3,
  centimeter: 1e-2,
  inch: 0.0254,
  foot: 0.3048,
  meter: 1
};
const MODEL = /\.model$/i;

export const threeMf: ModelReader = {
  key: '3mf',
  label: '3MF',
  extensions: ['3mf'],
  recognises: ({ name }) => /\.3mf$/i.test(name),
  recognisesArchive: (names) => names.some((name) => /^3D\/[^/]+\.model$/i.test(name)),
  states: { unit: 'm', up: 'z' },
  read
};

async function read({ name, bytes }: ModelFile, files: ModelFiles): Promise<ReadModel> {
  const model = [...files].find(([file]) => MODEL.test(file));
  if (!model) throw new ModelRefused('truncated', 'this 3MF is damaged: no model lies in its archive; export it again');
  for (const [file, data] of files) if (MODEL.test(file)) refuseDeepXml(Buffer.from(data).toString('utf8'), '3MF');
  const [{ ThreeMFLoader }, { withoutPage }, { readThree }] = await Promise.all([
    import('three/examples/jsm/loaders/3MFLoader.js'),
    import('./without-page'),
    import('./three-materials')
  ]);
  const head = Buffer.from(model[1].subarray(0, 8192)).toString('utf8');
  const unit = /<model\b[^>]*\bunit\s*=\s*["'](\w+)["']/.exec(head)?.[1] ?? 'millimeter';
  const factor = METRES[unit];
  if (factor === undefined)
    throw new ModelRefused(
      'unsupported',
      `this 3MF is drawn in "${unit.slice(0, 40)}", which is no unit of the format`
    );
  const loaded = await withoutPage(() => {
    const group = new ThreeMFLoader().parse(Uint8Array.from(bytes).buffer);
    group.scale.multiplyScalar(factor);
    return group;
  });
  return readThree({ format: '3MF', source: name, files, loaded, changed: [`The file is drawn in ${unit}s`] });
}

/** USDZ, and USD of text or of bytes (AOUSD core specification 1.0): the file says its unit and its axis. */
import { ModelRefused } from './model-refused';
import { type ModelFile, type ModelFiles, type ModelReader, PICTURES, type ReadModel } from './reader';

const startOf = (bytes: Uint8Array, length: number) => Buffer.from(bytes.subarray(0, length)).toString('latin1');
const isText = (bytes: Uint8Array) => startOf(bytes, 16).startsWith('#usda');
const isCrate = (bytes: Uint8Array) => startOf(bytes, 8) === 'PXR-USDC';
const isZip = (bytes: Uint8Array) => bytes[0] === 0x50 && bytes[1] === 0x4b;

export const usd: ModelReader = {
  key: 'usd',
  label: 'USDZ',
  extensions: ['usdz', 'usda', 'usdc', 'usd'],
  recognises: ({ name, bytes }) => isText(bytes) || isCrate(bytes) || /\.usdz$/i.test(name),
  recognisesArchive: (names) => names.length > 0 && /\.usd[ac]?$/i.test(names[0]!),
  states: { unit: 'm', up: 'y' },
  comesWith: PICTURES,
  read
};

async function read({ name, bytes }: ModelFile, files: ModelFiles): Promise<ReadModel> {
  if (!isText(bytes) && !isCrate(bytes) && !isZip(bytes))
    throw new ModelRefused('not_a_model', 'this file is named as USD and does not begin as one; export it again');
  const [{ USDLoader }, { withoutPage }, { readThree }] = await Promise.all([
    import('three/examples/jsm/loaders/USDLoader.js'),
    import('./without-page'),
    import('./three-materials')
  ]);
  const data = isText(bytes) ? new TextDecoder().decode(bytes) : Uint8Array.from(bytes).buffer;
  const loaded = await withoutPage(() => new USDLoader().parse(data));
  return readThree({ format: isZip(bytes) ? 'USDZ' : 'USD', source: name, files, loaded });
}

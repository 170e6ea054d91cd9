/** glTF 2.0 (Khronos): .glb, and .gltf with its files. Metres, +Y up, by the standard. */
import type { Document, JSONDocument } from '@gltf-transform/core';
import { checkGltfJson } from '../gltf/check-json';
import { hideNodes, type NodesJson } from '../gltf/hidden-nodes';
import { ModelRefused } from './model-refused';
import { type ModelFile, type ModelFiles, type ModelReader, PICTURES, type ReadModel } from './reader';

const isGlb = (bytes: Uint8Array) =>
  bytes.length >= 4 && bytes[0] === 0x67 && bytes[1] === 0x6c && bytes[2] === 0x54 && bytes[3] === 0x46;
const BRACE = 0x7b;

export const gltf: ModelReader = {
  key: 'gltf',
  label: 'glTF',
  extensions: ['glb', 'gltf'],
  recognises: ({ name, bytes }) =>
    isGlb(bytes) || /\.(gltf|glb)$/i.test(name) || (bytes.subarray(0, 64).includes(BRACE) && looksLikeGltf(bytes)),
  states: { unit: 'm', up: 'y' },
  comesWith: ['bin', 'ktx2', ...PICTURES],
  read: (main, files) => (isGlb(main.bytes) ? readGlb(main) : readJson(main, files))
};

/** JSON without the ending of a model's name is taken for a model when it says which version of glTF it is. */
const looksLikeGltf = (bytes: Uint8Array) =>
  /"asset"\s*:/.test(Buffer.from(bytes.subarray(0, 65_536)).toString('latin1'));

/** The decoders are loaded when the first file is read: whoever only lists formats needs none. */
const openIo = async () => (await import('../gltf/io')).createIo();

async function readGlb({ name, bytes }: ModelFile): Promise<ReadModel> {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 20 || view.getUint32(8, true) > bytes.length) {
    const whole = bytes.length >= 12 ? view.getUint32(8, true) : 'at least 20';
    throw new ModelRefused(
      'truncated',
      `this GLB is cut off: it holds ${bytes.length} of ${whole} bytes; copy or export it again`
    );
  }
  const version = view.getUint32(4, true);
  if (version !== 2)
    throw new ModelRefused('unsupported', `this is a glTF of version ${version}; export it as glTF 2.0`);
  const text = Buffer.from(bytes.subarray(20, 20 + view.getUint32(12, true))).toString('utf8');
  const json = parseJson(text);
  refuseExternal(json, new Map());
  await checkGltfJson(json, withoutMark(text));
  const document = await wellFormed(async () => (await openIo()).readBinary(bytes));
  return withHiddenNodes({ document, format: 'GLB', source: name, changed: [], missing: [] }, json);
}

async function readJson({ name, bytes }: ModelFile, files: ModelFiles): Promise<ReadModel> {
  const text = Buffer.from(bytes).toString('utf8');
  const json = parseJson(text);
  if (json.asset?.version === undefined)
    throw new ModelRefused(
      'not_a_model',
      'this JSON file is not glTF: it has no asset version; export the model as glTF 2.0'
    );
  if (!String(json.asset.version).startsWith('2'))
    throw new ModelRefused('unsupported', `this is a glTF of version ${json.asset.version}; export it as glTF 2.0`);
  const folder = name.includes('/') ? name.slice(0, name.lastIndexOf('/') + 1) : '';
  const resources: JSONDocument['resources'] = {};
  const lookUp = new Map<string, Uint8Array>();
  for (const [other, data] of files) {
    lookUp.set(other, data);
    if (other.startsWith(folder)) lookUp.set(other.slice(folder.length), data);
    // files dropped without their folders
    lookUp.set(other.slice(other.lastIndexOf('/') + 1), data);
  }
  for (const uri of refuseExternal(json, lookUp))
    resources[uri] = Uint8Array.from(lookUp.get(decodeURI(uri)) ?? lookUp.get(decodeURI(uri).split('/').pop()!)!);
  await checkGltfJson(json, withoutMark(text));
  const document = await wellFormed(async () =>
    (await openIo()).readJSON({ json: json as unknown as JSONDocument['json'], resources })
  );
  return withHiddenNodes({ document, format: 'glTF', source: name, changed: [], missing: [] }, json);
}

function withHiddenNodes(model: ReadModel, json: GltfJson): ReadModel {
  hideNodes(model.document, json as NodesJson, model.missing);
  const used = json.extensionsUsed ?? [];
  for (const name of used)
    if (!UNDERSTOOD.has(name) && !TAKEN_ELSEWHERE.test(name))
      model.missing.push(`What ${String(name).slice(0, 80)} says was left out: it is not known here`);
  if (used.includes('KHR_materials_unlit')) model.missing.push('Materials marked as unlit are lit like all others');
  return model;
}

/** Extensions that are kept or dissolved on the way in; others are dropped with a word. */
const UNDERSTOOD = new Set([
  'KHR_draco_mesh_compression',
  'EXT_meshopt_compression',
  'KHR_mesh_quantization',
  'EXT_mesh_gpu_instancing',
  'KHR_texture_basisu',
  'EXT_texture_webp',
  'KHR_texture_transform',
  'KHR_lights_punctual',
  'KHR_materials_emissive_strength',
  'KHR_materials_ior',
  'KHR_materials_transmission',
  'KHR_materials_volume',
  'KHR_materials_clearcoat',
  'KHR_materials_sheen',
  'KHR_materials_specular',
  'KHR_materials_anisotropy',
  'KHR_materials_iridescence',
  'KHR_materials_dispersion',
  'KHR_materials_diffuse_transmission',
  'KHR_materials_variants',
  'KHR_materials_unlit',
  'KHR_materials_pbrSpecularGlossiness'
]);

/** Read by other parts: hidden nodes, layers, places on earth, what made the file. */
const TAKEN_ELSEWHERE =
  /^(KHR_node_visibility|KHR_xmp|KHR_animation|EXT_mesh_features|EXT_structural_metadata|SPHAERA_)/;

interface GltfJson {
  asset?: { version?: unknown };
  extensionsUsed?: string[];
  buffers?: { uri?: string; byteLength?: number }[];
  images?: { uri?: string }[];
  extensionsRequired?: string[];
}

/** The byte order mark that some programs put first. */
const withoutMark = (text: string): string => (text.startsWith('\ufeff') ? text.slice(1) : text);

function parseJson(text: string): GltfJson {
  try {
    const json = JSON.parse(withoutMark(text)) as GltfJson;
    if (json && typeof json === 'object') return json;
  } catch {
    // said below
  }
  throw new ModelRefused(
    'not_a_model',
    'this file cannot be read as a model; export it as glTF 2.0 (.glb, or .gltf with its files) and bring that in'
  );
}

/** The file names that the model needs; each must be among those given. Data URIs are inside the file already. */
function refuseExternal(json: GltfJson, given: Map<string, Uint8Array>): string[] {
  const unknown = (json.extensionsRequired ?? []).filter((name) => !UNDERSTOOD.has(name));
  if (unknown.length)
    throw new ModelRefused('unsupported', `this model cannot be read without ${unknown.join(', ')}; export it without`);
  const names: string[] = [];
  for (const { uri } of [...(json.buffers ?? []), ...(json.images ?? [])]) {
    if (uri === undefined || uri.startsWith('data:')) continue;
    if (/^[a-z][a-z0-9+.-]*:|^\/\//i.test(uri))
      throw new ModelRefused(
        'external_file',
        `this model points to "${uri.slice(0, 120)}" on the network, which is never fetched; export it with everything inside (GLB)`
      );
    let name = uri;
    try {
      name = decodeURI(uri);
    } catch {
      // a name with a stray percent sign is used as it stands
    }
    if (!given.has(name) && !given.has(name.split('/').pop()!))
      throw new ModelRefused(
        'missing_file',
        `this model needs the file "${name.slice(0, 120)}", which was not given; drop it together with the model, or export a GLB`
      );
    names.push(uri);
  }
  return names;
}

async function wellFormed(read: () => Promise<Document>): Promise<Document> {
  try {
    return await read();
  } catch (error) {
    if (error instanceof ModelRefused) throw error;
    // what the library says is for the log
    console.error(error);
    throw new ModelRefused('truncated', 'this model is damaged or cut off inside its data; export it again');
  }
}

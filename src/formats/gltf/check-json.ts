/**
 * Checks the JSON of a glTF before anything is read by it: amounts that a small file can state and no machine can hold,
 * then what gltf-validator (Khronos) finds wrong with references, types and extents. What it finds wrong with values alone
 * is left to the reader, which mends or reports it.
 */
import { validateString } from 'gltf-validator';
import { ModelRefused } from '../model/model-refused';

const MAX_DEPTH = 1000;
const MAX_ITEMS = 1_000_000;
/** Bytes of accessors that have no data in the file and are taken as zeros. */
const MAX_ZEROS = 64 * 2 ** 20;
const COMPONENT_BYTES: Record<number, number> = { 5120: 1, 5121: 1, 5122: 2, 5123: 2, 5125: 4, 5126: 4 };
const COMPONENTS: Record<string, number> = { SCALAR: 1, VEC2: 2, VEC3: 3, VEC4: 4, MAT2: 4, MAT3: 9, MAT4: 16 };

/** Findings that a reader must not see. */
const REFUSED_CODES = new Set([
  'ACCESSOR_TOO_LONG',
  'BUFFER_VIEW_TOO_LONG',
  'NODE_LOOP',
  'NODE_PARENT_OVERRIDE',
  'TYPE_MISMATCH',
  'ARRAY_TYPE_MISMATCH',
  'ARRAY_LENGTH_NOT_IN_LIST',
  'UNRESOLVED_REFERENCE',
  'INVALID_INDEX'
]);

/** What a file says of its own values is not believed: they are looked at themselves. */
const STATED_EXTENT = /^\/accessors\/\d+\/(min|max)/;

interface Json {
  accessors?: unknown;
  nodes?: unknown;
  meshes?: unknown;
}

const asList = (value: unknown): Record<string, unknown>[] =>
  Array.isArray(value) ? value.map((item) => (item && typeof item === 'object' ? item : {})) : [];

const tooMuch = (what: string) =>
  new ModelRefused('too_large', `this model states ${what}; export it with fewer objects, or in parts`);

/** Throws a ModelRefused that names the place. `text` is the JSON that `json` was parsed from. */
export async function checkGltfJson(json: object, text: string): Promise<void> {
  const { accessors, nodes, meshes } = json as Json;
  for (const [name, list] of [
    ['accessors', accessors],
    ['nodes', nodes],
    ['meshes', meshes]
  ] as const)
    if (Array.isArray(list) && list.length > MAX_ITEMS) throw tooMuch(`${list.length.toLocaleString('en')} ${name}`);
  checkZeros(asList(accessors));
  checkTree(asList(nodes));
  const { issues } = await validateString(text, {
    maxIssues: 1000,
    // what is beside the file is checked by name elsewhere, and its bytes by the reader
    externalResourceFunction: () => Promise.reject(new Error('not given'))
  });
  const worst = issues.messages.find(
    ({ severity, code, pointer = '' }) => severity === 0 && REFUSED_CODES.has(code) && !STATED_EXTENT.test(pointer)
  );
  if (worst)
    throw new ModelRefused(
      'truncated',
      `this model breaks the glTF standard at ${worst.pointer || 'its root'}: ` +
        `${worst.message.replace(/\.$/, '').slice(0, 200)}; export it again`
    );
}

function checkZeros(accessors: Record<string, unknown>[]): void {
  let bytes = 0;
  for (const { bufferView, count, componentType, type } of accessors)
    if (bufferView === undefined)
      bytes += Number(count) * (COMPONENT_BYTES[Number(componentType)] ?? 4) * (COMPONENTS[String(type)] ?? 16);
  if (!(bytes <= MAX_ZEROS))
    throw tooMuch(`${Math.round(bytes / 2 ** 20).toLocaleString('en')} MB of data that it does not hold`);
}

/** Every node has one parent at most, none is its own ancestor, and no branch is endless. */
function checkTree(nodes: Record<string, unknown>[]): void {
  const parent = new Int32Array(nodes.length).fill(-1);
  nodes.forEach(({ children }, index) => {
    if (!Array.isArray(children)) return;
    for (const child of children as number[]) {
      if (!(child >= 0 && child < nodes.length)) continue;
      if (parent[child] !== -1) throw broken(child, 'it has two parents');
      parent[child] = index;
    }
  });
  const depth = new Int32Array(nodes.length);
  for (let start = 0; start < nodes.length; start++) {
    const branch: number[] = [];
    let node = start;
    while (node !== -1 && depth[node] === 0) {
      branch.push(node);
      // on the way: a node that is met again before it has a depth is its own ancestor
      depth[node] = -1;
      node = parent[node]!;
    }
    if (node !== -1 && depth[node] === -1) throw broken(node, 'it is its own ancestor');
    let level = node === -1 ? 0 : depth[node]!;
    for (const on of branch.reverse()) depth[on] = ++level;
    if (level > MAX_DEPTH) throw tooMuch(`objects within objects, more than ${MAX_DEPTH.toLocaleString('en')} deep`);
  }
}

const broken = (node: number, why: string) =>
  new ModelRefused('truncated', `this model breaks the glTF standard at /nodes/${node}: ${why}; export it again`);

/** What is wrong with a model that was read, and the repairs of it. Both work on the document in the file's own unit. */
import type { Document, Material, Mesh, Primitive, Texture } from '@gltf-transform/core';
import type { Light, Volume } from '@gltf-transform/extensions';
import { weldPrimitive } from '@gltf-transform/functions';
import sharp from 'sharp';
import { type Finding, type FindingKind, REPAIRS, type Repair } from '../../core/scene/health';
import { pathsOf } from '../gltf/node-paths';
import { creasedNormals } from './creased-normals';
import { takeApart } from './take-apart';
import { dropTriangles, examineTriangles, type ExaminedTriangles } from './triangles';

const NAMES_KEPT = 40;
// Of a part's triangles, whose normals look away from them: fewer is what smoothing over a sharp edge does.
const TURNED = 0.4;
// Larger bodies are not looked at for open edges, unless they are of glass: it takes seconds.
const MOST_FOR_EDGES = 250_000;
/** Sides of pictures, px: on A3 at 300 ppi no part of a sheet is wider than 4,961 px. */
const MOST_SIDE_PX = 4096;
// A street lamp has some thousands of candela, a stadium's floodlight some hundred thousand.
const LIKELY_CANDELA = [0.01, 1e6] as const;
const MOST_LUX = 2e5;
const MOST_NITS = 5e6;
/** Sizes of the model off its origin. */
const FAR_SIZES = 200;

interface Part {
  primitive: Primitive;
  path: string;
  triangles: ExaminedTriangles;
  glass: boolean;
}

export interface Health {
  findings: Finding[];
  /** Does the repairs that are asked for; tells which changed something. */
  repair(wanted: readonly Repair[]): Promise<Repair[]>;
}

/** `missingPictures`: names of files that the model asks for. */
export async function examineHealth(document: Document, missingPictures: readonly string[]): Promise<Health> {
  const root = document.getRoot();
  const parts = listParts(document);
  const worn = new Set(parts.map(({ primitive }) => primitive.getMaterial()));
  const doubles = doubledMaterials(root.listMaterials().filter((material) => worn.has(material)));
  const large = await largeTextures(root.listTextures());
  const findings: Finding[] = [];
  const put = (kind: FindingKind, count: number, where: Iterable<string> = []) => {
    if (count > 0) findings.push({ kind, count, where: [...new Set(where)].slice(0, NAMES_KEPT), repaired: false });
  };
  const of = (kind: PartRepair) => {
    const found = parts.map((part) => ({ path: part.path, count: COUNTS[kind](part) })).filter((f) => f.count > 0);
    put(
      kind,
      found.reduce((sum, f) => sum + f.count, 0),
      found.map((f) => f.path)
    );
  };
  of('flat');
  of('doubled');
  of('inside_out');
  of('normals');
  of('open_glass');
  put('materials', doubles.size, [...doubles.keys()].map(nameOf));
  put('textures', large.length, large.map(nameOf));
  put('pictures', missingPictures.length, missingPictures);
  const odd = oddLamps(document);
  put('lamps', odd.length, odd);
  put('far', sizesOff(document));

  return {
    findings,
    repair: async (wanted) => {
      const done = REPAIRS.filter((repair) => wanted.includes(repair) && findings.some((f) => f.kind === repair));
      const does = (repair: Repair) => done.includes(repair);
      for (const { primitive, triangles, ...part } of parts) {
        const counts = (kind: PartRepair) => does(kind) && COUNTS[kind]({ primitive, triangles, ...part }) > 0;
        // what is taken out has the numbers that it was counted by, so nothing before it may renumber the triangles
        const gone = [...(does('flat') ? triangles.flat : []), ...(does('doubled') ? triangles.doubled : [])];
        if (counts('open_glass')) closeHoles(document, primitive, triangles.open);
        if (!dropTriangles(document, primitive, gone)) continue;
        if (counts('inside_out')) turnOver(document, primitive);
        if (counts('normals')) makeNormals(document, primitive);
      }
      if (does('materials')) joinMaterials(document, doubles);
      if (does('textures')) for (const texture of large) await reduceTexture(texture);
      return done;
    }
  };
}

type PartRepair = Exclude<Repair, 'materials' | 'textures'>;

const COUNTS: Record<PartRepair, (part: Part) => number> = {
  flat: ({ triangles }) => triangles.flat.length,
  doubled: ({ triangles }) => triangles.doubled.length,
  inside_out: ({ triangles }) => (triangles.insideOut ? 1 : 0),
  // of a body that looks inwards the normals are turned with it
  normals: ({ triangles }) => (!triangles.insideOut && triangles.turnedNormals > TURNED ? 1 : 0),
  open_glass: ({ triangles, glass }) => (glass ? triangles.open.length : 0)
};

function listParts(document: Document): Part[] {
  const paths = new Map<Mesh, string>();
  for (const [node, path] of pathsOf(document)) {
    const mesh = node.getMesh();
    if (mesh && !paths.has(mesh)) paths.set(mesh, path);
  }
  const out: Part[] = [];
  for (const mesh of document.getRoot().listMeshes())
    for (const primitive of mesh.listPrimitives()) {
      const glass = isGlassBody(primitive.getMaterial());
      const corners = primitive.getIndices()?.getCount() ?? primitive.getAttribute('POSITION')?.getCount() ?? 0;
      const triangles = examineTriangles(primitive, glass || corners / 3 <= MOST_FOR_EDGES);
      if (triangles) out.push({ primitive, path: paths.get(mesh) ?? mesh.getName(), triangles, glass });
    }
  return out;
}

const nameOf = (property: { getName(): string }): string => property.getName() || 'without a name';

const isGlassBody = (material: Material | null): boolean =>
  (material?.getExtension<Volume>('KHR_materials_volume')?.getThicknessFactor() ?? 0) > 0;

/** Materials that are like another but for their names, with that other. */
function doubledMaterials(materials: readonly Material[]): Map<Material, Material> {
  const out = new Map<Material, Material>();
  const kept = new Map<string, Material[]>();
  for (const material of materials) {
    // lamps go by the names of what glows
    if (material.getEmissiveFactor().some((v) => v > 0)) continue;
    const key = [...material.getBaseColorFactor(), material.getRoughnessFactor(), material.getMetallicFactor()].join(
      ' '
    );
    const alike = kept.get(key) ?? [];
    const other = alike.find((one) => material.equals(one, new Set(['name'])));
    if (other) out.set(material, other);
    else kept.set(key, [...alike, material]);
  }
  return out;
}

function joinMaterials(document: Document, doubles: ReadonlyMap<Material, Material>): void {
  for (const mesh of document.getRoot().listMeshes())
    for (const primitive of mesh.listPrimitives()) {
      const other = doubles.get(primitive.getMaterial()!);
      if (other) primitive.setMaterial(other);
    }
  for (const material of doubles.keys()) material.dispose();
}

async function largeTextures(textures: readonly Texture[]): Promise<Texture[]> {
  const out: Texture[] = [];
  for (const texture of textures) {
    const { width = 0, height = 0 } = await sharp(texture.getImage()!, { limitInputPixels: false }).metadata();
    if (Math.max(width, height) > MOST_SIDE_PX) out.push(texture);
  }
  return out;
}

async function reduceTexture(texture: Texture): Promise<void> {
  const size = { width: MOST_SIDE_PX, height: MOST_SIDE_PX, fit: 'inside' as const };
  const small = sharp(texture.getImage()!, { limitInputPixels: false }).resize(size);
  texture.setImage(new Uint8Array(await small.toBuffer()));
}

function oddLamps(document: Document): string[] {
  const out: string[] = [];
  for (const node of document.getRoot().listNodes()) {
    const light = node.getExtension<Light>('KHR_lights_punctual');
    if (!light) continue;
    const strength = light.getIntensity() * Math.max(...light.getColor());
    const [least, most] = LIKELY_CANDELA;
    const odd = light.getType() === 'directional' ? strength > MOST_LUX : strength < least || strength > most;
    if (odd) out.push(node.getName() || nameOf(light));
  }
  for (const material of document.getRoot().listMaterials()) {
    const strength = material.getExtension('KHR_materials_emissive_strength') as {
      getEmissiveStrength(): number;
    } | null;
    if (Math.max(...material.getEmissiveFactor()) * (strength?.getEmissiveStrength() ?? 1) > MOST_NITS)
      out.push(nameOf(material));
  }
  return out;
}

/** How many times its own size a model lies from its origin; 0 where that is not worth a word. */
function sizesOff(document: Document): number {
  const min = [Infinity, Infinity, Infinity];
  const max = [-Infinity, -Infinity, -Infinity];
  for (const node of pathsOf(document).keys()) {
    const m = node.getWorldMatrix();
    for (const primitive of node.getMesh()?.listPrimitives() ?? []) {
      const position = primitive.getAttribute('POSITION');
      if (!position) continue;
      const [low, high] = [position.getMin([]), position.getMax([])];
      for (let i = 0; i < 8; i++) {
        const corner = [0, 1, 2].map((k) => (i & (1 << k) ? high : low)[k]!);
        for (let k = 0; k < 3; k++) {
          const v = m[k]! * corner[0]! + m[4 + k]! * corner[1]! + m[8 + k]! * corner[2]! + m[12 + k]!;
          min[k] = Math.min(min[k]!, v);
          max[k] = Math.max(max[k]!, v);
        }
      }
    }
  }
  const size = Math.hypot(...max.map((v, k) => v - min[k]!));
  const off = Math.hypot(...max.map((v, k) => (v + min[k]!) / 2));
  const sizes = Math.round(off / size);
  return Number.isFinite(sizes) && sizes >= FAR_SIZES ? sizes : 0;
}

/** The other way round: its triangles, and its normals with them. */
function turnOver(document: Document, primitive: Primitive): void {
  const position = primitive.getAttribute('POSITION')!;
  const given = primitive.getIndices()?.getArray();
  const indices = Uint32Array.from(given ?? { length: position.getCount() }, (v, i) => (given ? Number(v) : i));
  for (let i = 0; i + 2 < indices.length; i += 3) [indices[i + 1], indices[i + 2]] = [indices[i + 2]!, indices[i + 1]!];
  primitive.setIndices(document.createAccessor().setType('SCALAR').setArray(indices).setBuffer(position.getBuffer()));
  const normal = primitive.getAttribute('NORMAL');
  if (normal)
    primitive.setAttribute('NORMAL', normal.clone().setArray(Float32Array.from(normal.getArray()!, (v: number) => -v)));
  // they are made anew from the normals
  primitive.setAttribute('TANGENT', null);
}

function makeNormals(document: Document, primitive: Primitive): void {
  takeApart(document, primitive);
  const position = primitive.getAttribute('POSITION')!;
  const normals = creasedNormals(Float32Array.from(position.getArray()!));
  const accessor = document.createAccessor().setType('VEC3').setArray(normals).setBuffer(position.getBuffer());
  primitive.setAttribute('NORMAL', accessor).setAttribute('TANGENT', null);
  weldPrimitive(primitive);
}

// A hole with a longer rim is where a body was cut on purpose.
const LONGEST_RIM = 1000;

/** Closes holes by a fan over each rim, with normals of its own. */
function closeHoles(document: Document, primitive: Primitive, open: ExaminedTriangles['open']): void {
  const position = primitive.getAttribute('POSITION')!;
  const points = position.getArray()!;
  const caps: { rim: number[]; normal: [number, number, number] }[] = [];
  for (const rim of rimsOf(open)) {
    if (rim.length < 3 || rim.length > LONGEST_RIM) continue;
    // a closed rim's area vector (Newell 1972)
    const n: [number, number, number] = [0, 0, 0];
    rim.forEach((v, i) => {
      const w = rim[(i + 1) % rim.length]!;
      for (let k = 0; k < 3; k++) {
        const [a, b] = [(k + 1) % 3, (k + 2) % 3];
        n[k]! += points[v * 3 + a]! * points[w * 3 + b]! - points[v * 3 + b]! * points[w * 3 + a]!;
      }
    });
    const size = Math.hypot(...n) || 1;
    caps.push({ rim, normal: [n[0] / size, n[1] / size, n[2] / size] });
  }
  const rows = caps.flatMap(({ rim }) => rim);
  const first = position.getCount();
  for (const semantic of primitive.listSemantics()) {
    const old = primitive.getAttribute(semantic)!;
    const [from, size] = [old.getArray()!, old.getElementSize()];
    const to = new (from.constructor as Float32ArrayConstructor)(from.length + rows.length * size);
    to.set(from);
    for (const [i, v] of rows.entries())
      to.set(from.subarray(v * size, (v + 1) * size) as Float32Array, from.length + i * size);
    if (semantic === 'NORMAL') {
      let at = from.length;
      for (const { rim, normal } of caps) for (let i = 0; i < rim.length; i++, at += 3) to.set(normal, at);
    }
    primitive.setAttribute(semantic, old.clone().setArray(to));
  }
  const given = primitive.getIndices()?.getArray();
  const indices = Array.from(given ?? { length: first }, (v, i) => (given ? Number(v) : i));
  let start = first;
  for (const { rim } of caps) {
    for (let i = 1; i + 1 < rim.length; i++) indices.push(start, start + i, start + i + 1);
    start += rim.length;
  }
  primitive.setIndices(
    document.createAccessor().setType('SCALAR').setArray(Uint32Array.from(indices)).setBuffer(position.getBuffer())
  );
}

/** Closed ways along open edges, against the direction in which their triangles go round, as what closes them has to go. */
function rimsOf(open: ExaminedTriangles['open']): number[][] {
  const next = new Map<number, number>();
  for (const [from, to] of open) next.set(to, from);
  const rims: number[][] = [];
  for (const start of [...next.keys()]) {
    const rim: number[] = [];
    let at: number | undefined = start;
    while (at !== undefined && next.has(at)) {
      rim.push(at);
      const to: number = next.get(at)!;
      next.delete(at);
      at = to;
    }
    if (at === start) rims.push(rim);
  }
  return rims;
}

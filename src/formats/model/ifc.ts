/**
 * IFC (ISO 16739), read by web-ifc: metres with Y up. Elements keep their names under their storeys; colours are those of
 * the surface styles; the site brings place and north.
 */
import type { Material, Node } from '@gltf-transform/core';
import { createRequire } from 'node:module';
import { dirname } from 'node:path';
import type { IfcAPI, PlacedGeometry } from 'web-ifc';
import { decodeSrgb } from '../../core/color/srgb';
import { refuseCutOff, schemaOf } from './clear-text';
import { ModelRefused } from './model-refused';
import type { ModelFile, ModelReader, ReadModel } from './reader';

const isIfc = (bytes: Uint8Array) => /^IFC/i.test(schemaOf(bytes));

export const ifc: ModelReader = {
  key: 'ifc',
  label: 'IFC',
  extensions: ['ifc'],
  recognises: ({ name, bytes }) => isIfc(bytes) || /\.ifc$/i.test(name),
  states: { unit: 'm', up: 'y' },
  read
};

async function read({ name, bytes }: ModelFile): Promise<ReadModel> {
  if (!isIfc(bytes))
    throw new ModelRefused('not_a_model', 'this file is named as IFC and does not say so in its head; export it again');
  refuseCutOff(bytes, 'IFC');
  const [{ IfcAPI, LogLevel, ...types }, { ModelBuilder }] = await Promise.all([
    import('web-ifc'),
    import('./model-builder')
  ]);
  const api = new IfcAPI();
  api.SetWasmPath(`${dirname(createRequire(import.meta.url).resolve('web-ifc'))}/`, true);
  await api.Init(undefined, true);
  api.SetLogLevel(LogLevel.LOG_LEVEL_OFF);
  const model = api.OpenModel(bytes, { COORDINATE_TO_ORIGIN: true });
  if (model < 0) throw new ModelRefused('truncated', 'this IFC file is damaged or cut off; export it again');
  try {
    const builder = new ModelBuilder();
    const materials = new Map<string, Material>();
    const storeys = storeyNodes(api, model, types, builder);
    const named = materialNames(api, model, types);
    let elements = 0;
    api.StreamAllMeshes(model, ({ expressID, geometries }) => {
      const parts: { placed: PlacedGeometry; key: string }[] = [];
      for (let i = 0; i < geometries.size(); i++) {
        const placed = geometries.get(i);
        parts.push({ placed, key: `${named.get(expressID) ?? ''} ${Object.values(placed.color).join(' ')}` });
      }
      if (parts.length === 0) return;
      elements++;
      const line = api.GetLine(model, expressID) as { Name?: { value?: unknown } | null };
      const label = String(line?.Name?.value ?? '') || api.GetNameFromTypeCode(api.GetLineType(model, expressID));
      const element = builder.node(label, storeys.of(expressID));
      for (const { placed, key } of parts) {
        const material =
          materials.get(key) ?? materialOf(builder, named.get(expressID) ?? null, placed.color, materials.size);
        materials.set(key, material);
        const { positions, normals, indices } = geometryOf(api, model, placed);
        const mesh = builder.mesh(label, [{ positions, normals, indices, material }]);
        if (mesh) builder.node(label, element, placed.flatTransformation).setMesh(mesh);
      }
    });
    if (elements === 0)
      throw new ModelRefused('no_surface', 'this IFC file holds no element with a shape; export the building itself');
    const site = siteOf(api, model, types);
    if (site) builder.scene.setExtras({ site });
    const changed = [`${elements} building elements came in by their names and storeys`];
    return {
      document: builder.document,
      format: `IFC (${api.GetModelSchema(model)})`,
      source: name,
      changed,
      missing: []
    };
  } finally {
    api.CloseModel(model);
  }
}

type Types = Pick<
  typeof import('web-ifc'),
  | 'IFCBUILDINGSTOREY'
  | 'IFCRELCONTAINEDINSPATIALSTRUCTURE'
  | 'IFCRELASSOCIATESMATERIAL'
  | 'IFCSITE'
  | 'IFCGEOMETRICREPRESENTATIONCONTEXT'
>;
interface Reference {
  value: number;
}

function* lines(api: IfcAPI, model: number, type: number): Generator<Record<string, unknown>> {
  const ids = api.GetLineIDsWithType(model, type);
  for (let i = 0; i < ids.size(); i++) yield api.GetLine(model, ids.get(i)) as Record<string, unknown>;
}

/** A node a storey, and which of them an element stands in. */
function storeyNodes(
  api: IfcAPI,
  model: number,
  types: Types,
  builder: import('./model-builder').ModelBuilder
): { of(element: number): Node | null } {
  const nodes = new Map<number, Node>();
  for (const storey of lines(api, model, types.IFCBUILDINGSTOREY)) {
    const label = (storey.LongName ?? storey.Name) as { value?: string } | null;
    nodes.set(storey.expressID as number, builder.node(label?.value ?? 'Storey'));
  }
  const within = new Map<number, number>();
  for (const relation of lines(api, model, types.IFCRELCONTAINEDINSPATIALSTRUCTURE))
    for (const element of (relation.RelatedElements ?? []) as Reference[])
      within.set(element.value, (relation.RelatingStructure as Reference).value);
  return { of: (element) => nodes.get(within.get(element) ?? -1) ?? null };
}

/** Names of the materials that elements are said to be of. */
function materialNames(api: IfcAPI, model: number, types: Types): Map<number, string> {
  const names = new Map<number, string>();
  for (const relation of lines(api, model, types.IFCRELASSOCIATESMATERIAL)) {
    const name = nameWithin(api, model, (relation.RelatingMaterial as Reference | null)?.value, 0);
    if (name) for (const element of (relation.RelatedObjects ?? []) as Reference[]) names.set(element.value, name);
  }
  return names;
}

// Material, or the first of a list, of the layers of a set, or of a set's use.
const INSIDE = ['Materials', 'ForLayerSet', 'MaterialLayers', 'Material', 'MaterialConstituents', 'MaterialProfiles'];
const DEEPEST = 5;

function nameWithin(api: IfcAPI, model: number, id: number | undefined, depth: number): string | null {
  if (id === undefined || depth > DEEPEST) return null;
  const line = api.GetLine(model, id) as Record<string, unknown> | null;
  if (!line) return null;
  for (const key of INSIDE) {
    const inside = line[key] as Reference | Reference[] | null | undefined;
    const first = Array.isArray(inside) ? inside[0] : inside;
    const found = first && nameWithin(api, model, first.value, depth + 1);
    if (found) return found;
  }
  return (line.Name as { value?: string } | null)?.value ?? null;
}

type Color = PlacedGeometry['color'];

function materialOf(
  builder: import('./model-builder').ModelBuilder,
  name: string | null,
  { x, y, z, w }: Color,
  number: number
): Material {
  const material = builder.document
    .createMaterial(name ?? `Surface ${number + 1}`)
    // colours of surface styles are displayed ones (common practice, no source)
    .setBaseColorFactor([decodeSrgb(x), decodeSrgb(y), decodeSrgb(z), 1])
    .setRoughnessFactor(0.8)
    .setMetallicFactor(0)
    .setDoubleSided(true);
  builder.letThrough(material, 1 - w);
  return material;
}

const FLOATS_A_VERTEX = 6;

function geometryOf(api: IfcAPI, model: number, { geometryExpressID }: PlacedGeometry) {
  const geometry = api.GetGeometry(model, geometryExpressID);
  const vertices = api.GetVertexArray(geometry.GetVertexData(), geometry.GetVertexDataSize());
  const indices = Uint32Array.from(api.GetIndexArray(geometry.GetIndexData(), geometry.GetIndexDataSize()));
  const count = Math.floor(vertices.length / FLOATS_A_VERTEX);
  const [positions, normals] = [new Float32Array(count * 3), new Float32Array(count * 3)];
  for (let v = 0; v < count; v++)
    for (let k = 0; k < 3; k++) {
      positions[v * 3 + k] = vertices[v * FLOATS_A_VERTEX + k]!;
      normals[v * 3 + k] = vertices[v * FLOATS_A_VERTEX + 3 + k]!;
    }
  geometry.delete();
  return { positions, normals, indices };
}

/** Place and north; null where the file does not say. Angles of ISO 10303-41 are degrees, minutes, seconds, millionths. */
function siteOf(api: IfcAPI, model: number, types: Types) {
  const angle = (parts: unknown): number | null => {
    const values = (parts as { value?: number[] } | null)?.value;
    if (!values || values.length < 3 || !values.every(Number.isFinite)) return null;
    const [d, m, s, u = 0] = values as [number, number, number, number?];
    return d + m / 60 + (s + u / 1e6) / 3600;
  };
  for (const site of lines(api, model, types.IFCSITE)) {
    const [latitude_deg, longitude_deg] = [angle(site.RefLatitude), angle(site.RefLongitude)];
    if (latitude_deg === null || longitude_deg === null) continue;
    return { latitude_deg, longitude_deg, north_deg: trueNorth(api, model, types) };
  }
  return null;
}

/** How far true north lies to the left of the drawing's up. */
function trueNorth(api: IfcAPI, model: number, types: Types): number {
  for (const context of lines(api, model, types.IFCGEOMETRICREPRESENTATIONCONTEXT)) {
    const reference = context.TrueNorth as Reference | null | undefined;
    const direction = reference && (api.GetLine(model, reference.value) as { DirectionRatios?: { value: number }[] });
    const [x, y] = (direction?.DirectionRatios ?? []).map((ratio) => Number(ratio.value ?? ratio));
    if (x !== undefined && y !== undefined && Number.isFinite(x) && Number.isFinite(y))
      return (Math.atan2(-x, y) * 180) / Math.PI;
  }
  return 0;
}

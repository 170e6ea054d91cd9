/** A drawn model to a GLB: parts become meshes, the stage frame becomes glTF's (z mirrored), textures become PNG. */
import { Document, type Material, type Node } from '@gltf-transform/core';
import {
  KHRLightsPunctual,
  KHRMaterialsAnisotropy,
  KHRMaterialsClearcoat,
  KHRMaterialsDiffuseTransmission,
  KHRMaterialsDispersion,
  KHRMaterialsEmissiveStrength,
  KHRMaterialsIOR,
  KHRMaterialsIridescence,
  KHRMaterialsSheen,
  KHRMaterialsSpecular,
  KHRMaterialsTransmission,
  KHRMaterialsVolume
} from '@gltf-transform/extensions';
import sharp from 'sharp';
import type { SolidTexture } from '../core/materials/solid-texture';
import type { Vec3 } from '../core/math/vec3';
import { cross, normalize, subtract } from '../core/math/vec3';
import { createIo } from '../formats/gltf/io';
import type { MeshBuilder, MeshPart } from './mesh-builder';
import type { PaintedTexture } from './textures/paint';

export interface DrawnMaterial {
  color?: Vec3;
  alpha?: number;
  metallic?: number;
  roughness?: number;
  texture?: PaintedTexture;
  /** Metres that the texture spans along u and v. */
  span?: readonly [number, number];
  normalScale?: number;
  transmission?: number;
  ior?: number;
  /** Fills a volume: thickness in m, colour after that distance. */
  volume?: { thickness: number; color: Vec3; distance: number };
  /** cd/m2. */
  glow?: Vec3;
  oneSided?: boolean;
  coat?: { weight: number; roughness: number };
  sheen?: { color: Vec3; roughness: number };
  /** Strength, and direction from the u axis in degrees; needs uv. */
  brushed?: { strength: number; turnDeg: number };
  film?: { weight: number; ior: number; nm: number };
  /** 20 over the Abbe number. */
  dispersion?: number;
  /** Light that the matte layer scatters to its other side. */
  through?: { weight: number; color: Vec3 };
  specularColor?: Vec3;
  solid?: SolidTexture;
}

export interface DrawnCamera {
  name: string;
  from: Vec3;
  to: Vec3;
  focalMm: number;
}

export interface DrawnLamp {
  name: string;
  kind: 'point' | 'spot';
  at: Vec3;
  to?: Vec3;
  color: Vec3;
  candela: number;
  innerDeg?: number;
  outerDeg?: number;
}

export interface DrawnModel {
  name: string;
  mesh: MeshBuilder;
  materials: Record<string, DrawnMaterial>;
  cameras: DrawnCamera[];
  lamps: DrawnLamp[];
  /** Drawn once about the origin, placed often: turned about the upright, scaled alike in all directions. */
  copies?: { name: string; mesh: MeshBuilder; places: { at: Vec3; turnDeg: number; scale: number }[] }[];
}

const flip = (v: Vec3): Vec3 => [v[0], v[1], -v[2]];

export async function writeModel(model: DrawnModel): Promise<Uint8Array> {
  const document = new Document();
  document.getRoot().getAsset().generator = 'Sphaera';
  const buffer = document.createBuffer();
  const scene = document.createScene(model.name);
  document.getRoot().setDefaultScene(scene);
  const strength = document.createExtension(KHRMaterialsEmissiveStrength);
  const transmission = document.createExtension(KHRMaterialsTransmission);
  const volume = document.createExtension(KHRMaterialsVolume);
  const iorExtension = document.createExtension(KHRMaterialsIOR);
  const lights = document.createExtension(KHRLightsPunctual);
  const coat = document.createExtension(KHRMaterialsClearcoat);
  const sheen = document.createExtension(KHRMaterialsSheen);
  const anisotropy = document.createExtension(KHRMaterialsAnisotropy);
  const iridescence = document.createExtension(KHRMaterialsIridescence);
  const dispersion = document.createExtension(KHRMaterialsDispersion);
  const through = document.createExtension(KHRMaterialsDiffuseTransmission);
  const specular = document.createExtension(KHRMaterialsSpecular);
  const images = new Map<
    PaintedTexture,
    {
      color: ReturnType<typeof document.createTexture>;
      rough: ReturnType<typeof document.createTexture> | null;
      normal: ReturnType<typeof document.createTexture> | null;
    }
  >();
  const toPng = (pixels: Uint8Array, w: number, h: number) =>
    sharp(pixels, { raw: { width: w, height: h, channels: 4 } })
      .removeAlpha()
      .png()
      .toBuffer();

  const known = new Map<string, Material>();
  const materialOf = async (part: MeshPart): Promise<Material> => {
    const there = known.get(part.material);
    if (there) return there;
    const spec = model.materials[part.material];
    if (!spec) throw new Error(`writeModel: expected a material "${part.material}" in ${model.name}`);
    const material = document
      .createMaterial(part.material)
      .setBaseColorFactor([...(spec.color ?? [1, 1, 1]), spec.alpha ?? 1])
      .setMetallicFactor(spec.metallic ?? 0)
      .setRoughnessFactor(spec.roughness ?? 0.6)
      .setDoubleSided(!spec.oneSided);
    if (spec.texture) {
      let made = images.get(spec.texture);
      if (!made) {
        const { width, height, color, metalRough, normal } = spec.texture;
        const texture = async (pixels: Uint8Array, what: string) =>
          document
            .createTexture(`${part.material} ${what}`)
            .setImage(await toPng(pixels, width, height))
            .setMimeType('image/png');
        made = {
          color: await texture(color, 'colour'),
          rough: metalRough ? await texture(metalRough, 'roughness') : null,
          normal: normal ? await texture(normal, 'relief') : null
        };
        images.set(spec.texture, made);
      }
      material.setBaseColorTexture(made.color);
      if (made.rough) material.setMetallicRoughnessTexture(made.rough).setRoughnessFactor(1);
      if (made.normal) material.setNormalTexture(made.normal).setNormalScale(spec.normalScale ?? 1);
    }
    if (spec.solid) material.setExtras({ solid_texture: spec.solid });
    if (spec.glow) {
      const peak = Math.max(...spec.glow);
      material.setEmissiveFactor([spec.glow[0] / peak, spec.glow[1] / peak, spec.glow[2] / peak]);
      material.setExtension(
        'KHR_materials_emissive_strength',
        strength.createEmissiveStrength().setEmissiveStrength(peak)
      );
    }
    if (spec.transmission)
      material.setExtension(
        'KHR_materials_transmission',
        transmission.createTransmission().setTransmissionFactor(spec.transmission)
      );
    if (spec.ior) material.setExtension('KHR_materials_ior', iorExtension.createIOR().setIOR(spec.ior));
    if (spec.volume)
      material.setExtension(
        'KHR_materials_volume',
        volume
          .createVolume()
          .setThicknessFactor(spec.volume.thickness)
          .setAttenuationColor([...spec.volume.color])
          .setAttenuationDistance(spec.volume.distance)
      );

    if (spec.coat)
      material.setExtension(
        'KHR_materials_clearcoat',
        coat.createClearcoat().setClearcoatFactor(spec.coat.weight).setClearcoatRoughnessFactor(spec.coat.roughness)
      );
    if (spec.sheen)
      material.setExtension(
        'KHR_materials_sheen',
        sheen
          .createSheen()
          .setSheenColorFactor([...spec.sheen.color])
          .setSheenRoughnessFactor(spec.sheen.roughness)
      );
    if (spec.brushed)
      material.setExtension(
        'KHR_materials_anisotropy',
        anisotropy
          .createAnisotropy()
          .setAnisotropyStrength(spec.brushed.strength)
          .setAnisotropyRotation((spec.brushed.turnDeg * Math.PI) / 180)
      );
    if (spec.film)
      material.setExtension(
        'KHR_materials_iridescence',
        iridescence
          .createIridescence()
          .setIridescenceFactor(spec.film.weight)
          .setIridescenceIOR(spec.film.ior)
          .setIridescenceThicknessMinimum(spec.film.nm)
          .setIridescenceThicknessMaximum(spec.film.nm)
      );
    if (spec.dispersion)
      material.setExtension('KHR_materials_dispersion', dispersion.createDispersion().setDispersion(spec.dispersion));
    if (spec.through)
      material.setExtension(
        'KHR_materials_diffuse_transmission',
        through
          .createDiffuseTransmission()
          .setDiffuseTransmissionFactor(spec.through.weight)
          .setDiffuseTransmissionColorFactor([...spec.through.color])
      );
    if (spec.specularColor)
      material.setExtension(
        'KHR_materials_specular',
        specular.createSpecular().setSpecularColorFactor([...spec.specularColor])
      );

    known.set(part.material, material);
    return material;
  };

  const primitiveOf = async (part: MeshPart) => {
    const material = await materialOf(part);
    const spec = model.materials[part.material]!;
    const [sx, sy] = spec.span ?? [1, 1];
    const positions = Float32Array.from(part.positions, (v, i) => (i % 3 === 2 ? -v : v));
    const normals = Float32Array.from(part.normals, (v, i) => (i % 3 === 2 ? -v : v));
    const uvs = Float32Array.from(part.uvs, (v, i) => v / (i % 2 === 0 ? sx : sy));
    const indices = Uint32Array.from(part.indices);
    for (let i = 0; i < indices.length; i += 3) [indices[i + 1], indices[i + 2]] = [indices[i + 2]!, indices[i + 1]!];
    const accessor = (array: Float32Array | Uint32Array, type: 'VEC3' | 'VEC2' | 'SCALAR') =>
      document
        .createAccessor()
        .setType(type)
        .setArray(array as never)
        .setBuffer(buffer);
    const primitive = document
      .createPrimitive()
      .setAttribute('POSITION', accessor(positions, 'VEC3'))
      .setAttribute('NORMAL', accessor(normals, 'VEC3'))
      .setIndices(accessor(indices, 'SCALAR'))
      .setMaterial(material);
    if (spec.texture || spec.brushed) primitive.setAttribute('TEXCOORD_0', accessor(uvs, 'VEC2'));
    return primitive;
  };
  const assemblies = new Map<string, Node>();
  for (const part of model.mesh.parts.values()) {
    const node = document
      .createNode(part.material)
      .setMesh(document.createMesh(part.material).addPrimitive(await primitiveOf(part)));
    if (part.assembly === null) {
      scene.addChild(node);
      continue;
    }
    const assembly = assemblies.get(part.assembly) ?? document.createNode(part.assembly);
    if (!assemblies.has(part.assembly)) scene.addChild(assembly);
    assemblies.set(part.assembly, assembly.addChild(node));
  }
  for (const { name, mesh, places } of model.copies ?? []) {
    const shared = document.createMesh(name);
    for (const part of mesh.parts.values()) shared.addPrimitive(await primitiveOf(part));
    const group = document.createNode(name);
    scene.addChild(group);
    for (const [i, { at, turnDeg, scale }] of places.entries()) {
      const half = (-turnDeg * Math.PI) / 360;
      group.addChild(
        document
          .createNode(`${name} ${i + 1}`)
          .setMesh(shared)
          .setTranslation([...flip(at)])
          .setRotation([0, Math.sin(half), 0, Math.cos(half)])
          .setScale([scale, scale, scale])
      );
    }
  }

  for (const camera of model.cameras) {
    const lens = document
      .createCamera(camera.name)
      .setType('perspective')
      .setYFov(2 * Math.atan(12 / camera.focalMm))
      .setZNear(0.01)
      .setZFar(1000);
    scene.addChild(
      document
        .createNode(camera.name)
        .setCamera(lens)
        .setTranslation([...flip(camera.from)])
        .setRotation(lookAlong(flip(subtract(camera.to, camera.from))))
    );
  }
  for (const lamp of model.lamps) {
    const light = lights
      .createLight(lamp.name)
      .setType(lamp.kind)
      .setColor([...lamp.color])
      .setIntensity(lamp.candela);
    if (lamp.kind === 'spot')
      light
        .setInnerConeAngle(((lamp.innerDeg ?? 10) * Math.PI) / 180)
        .setOuterConeAngle(((lamp.outerDeg ?? 30) * Math.PI) / 180);
    const node = document
      .createNode(lamp.name)
      .setExtension('KHR_lights_punctual', light)
      .setTranslation([...flip(lamp.at)]);
    if (lamp.to) node.setRotation(lookAlong(flip(subtract(lamp.to, lamp.at))));
    scene.addChild(node);
  }
  // extensions that nothing uses would only make readers wonder
  for (const extension of document.getRoot().listExtensionsUsed())
    if (extension.listProperties().length === 0) extension.dispose();
  return (await createIo()).writeBinary(document);
}

/** The rotation that turns -Z to a direction and keeps +Y as high as it can. */
function lookAlong(direction: Vec3): [number, number, number, number] {
  const back = normalize([-direction[0], -direction[1], -direction[2]]);
  const right = Math.abs(back[1]) > 0.9999 ? ([1, 0, 0] as Vec3) : normalize(cross([0, 1, 0], back));
  const up = cross(back, right);
  const [m00, m10, m20] = right;
  const [m01, m11, m21] = up;
  const [m02, m12, m22] = back;
  const trace = m00 + m11 + m22;
  if (trace > 0) {
    const s = Math.sqrt(trace + 1) * 2;
    return [(m21 - m12) / s, (m02 - m20) / s, (m10 - m01) / s, s / 4];
  }
  if (m00 > m11 && m00 > m22) {
    const s = Math.sqrt(1 + m00 - m11 - m22) * 2;
    return [s / 4, (m01 + m10) / s, (m02 + m20) / s, (m21 - m12) / s];
  }
  if (m11 > m22) {
    const s = Math.sqrt(1 + m11 - m00 - m22) * 2;
    return [(m01 + m10) / s, s / 4, (m12 + m21) / s, (m02 - m20) / s];
  }
  const s = Math.sqrt(1 + m22 - m00 - m11) * 2;
  return [(m02 + m20) / s, (m12 + m21) / s, s / 4, (m10 - m01) / s];
}

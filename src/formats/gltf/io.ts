/** A glTF reader and writer that knows the extensions we understand, with the decoders of compressed geometry. */
import { NodeIO } from '@gltf-transform/core';
import {
  EXTMeshoptCompression,
  EXTTextureWebP,
  KHRDracoMeshCompression,
  KHRLightsPunctual,
  KHRMaterialsAnisotropy,
  KHRMaterialsClearcoat,
  KHRMaterialsDiffuseTransmission,
  KHRMaterialsDispersion,
  KHRMaterialsEmissiveStrength,
  KHRMaterialsIOR,
  KHRMaterialsIridescence,
  KHRMaterialsPBRSpecularGlossiness,
  KHRMaterialsSheen,
  KHRMaterialsSpecular,
  KHRMaterialsTransmission,
  KHRMaterialsUnlit,
  KHRMaterialsVariants,
  KHRMaterialsVolume,
  KHRMeshQuantization,
  KHRTextureBasisu,
  KHRTextureTransform,
  EXTMeshGPUInstancing
} from '@gltf-transform/extensions';
import draco3d from 'draco3dgltf';
import { MeshoptDecoder } from 'meshoptimizer';

export async function createIo(): Promise<NodeIO> {
  await MeshoptDecoder.ready;
  return new NodeIO()
    .registerExtensions([
      EXTMeshoptCompression,
      EXTMeshGPUInstancing,
      EXTTextureWebP,
      KHRDracoMeshCompression,
      KHRLightsPunctual,
      KHRMaterialsAnisotropy,
      KHRMaterialsClearcoat,
      KHRMaterialsDiffuseTransmission,
      KHRMaterialsDispersion,
      KHRMaterialsEmissiveStrength,
      KHRMaterialsIOR,
      KHRMaterialsIridescence,
      KHRMaterialsPBRSpecularGlossiness,
      KHRMaterialsSheen,
      KHRMaterialsSpecular,
      KHRMaterialsTransmission,
      KHRMaterialsUnlit,
      KHRMaterialsVariants,
      KHRMaterialsVolume,
      KHRMeshQuantization,
      KHRTextureBasisu,
      KHRTextureTransform
    ])
    .registerDependencies({
      'draco3d.decoder': await draco3d.createDecoderModule(),
      'meshopt.decoder': MeshoptDecoder
    });
}

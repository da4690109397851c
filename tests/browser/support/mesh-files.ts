import type { MeshShape } from '@brelvin/contract';
import { Document, NodeIO, type Material, type Mesh } from '@gltf-transform/core';
import { KHRMaterialsClearcoat } from '@gltf-transform/extensions';
import { buildMesh } from '@brelvin/core';
import { pngFile, type DroppedFile } from './map-files';

/** A kite of a sail and two spars, as a modelling program would write it: two materials, one image, three nodes. */
export async function kiteGlb(): Promise<DroppedFile> {
  const document = new Document();
  document.createBuffer();
  const scene = document.createScene('Kite');
  const cloth = document
    .createMaterial('Sail cloth')
    .setBaseColorFactor([1, 1, 1, 1])
    .setMetallicFactor(0)
    .setRoughnessFactor(0.7)
    .setDoubleSided(true)
    .setBaseColorTexture(
      document
        .createTexture('stripes')
        .setMimeType('image/png')
        .setImage(pngFile('stripes.png', (u) => (Math.floor(u * 6) % 2 ? [0.8, 0.1, 0.05] : [0.9, 0.85, 0.7])).content),
    );
  const coat = document.createExtension(KHRMaterialsClearcoat).createClearcoat().setClearcoatFactor(1).setClearcoatRoughnessFactor(0.05);
  const spar = document
    .createMaterial('Varnished spar')
    .setBaseColorFactor([0.25, 0.12, 0.05, 1])
    .setMetallicFactor(0)
    .setExtension('KHR_materials_clearcoat', coat);
  const sail = meshOf(document, 'Sail', 'sheet', { width: 2, height: 2, segments: 12 }, cloth);
  const stick = meshOf(document, 'Spar', 'cylinder', { radius: 0.05, height: 2.4, segments: 16 }, spar);
  scene.addChild(document.createNode('Sail').setMesh(sail));
  scene.addChild(document.createNode('Mast').setMesh(stick).setTranslation([0, 0, -0.3]));
  scene.addChild(
    document.createNode('Yard').setMesh(stick).setTranslation([0, 0.3, -0.25]).setRotation([0, 0, Math.SQRT1_2, Math.SQRT1_2]),
  );
  document.createAnimation('Flutter');
  const bytes = await new NodeIO().registerExtensions([KHRMaterialsClearcoat]).writeBinary(document);
  return { name: 'kite.glb', type: 'model/gltf-binary', content: Buffer.from(bytes) };
}

function meshOf(document: Document, name: string, shape: MeshShape, numbers: Record<string, number>, material: Material): Mesh {
  const data = buildMesh({ shape, numbers, smooth: true });
  const accessor = (type: 'VEC2' | 'VEC3', values: Float32Array) =>
    document.createAccessor().setType(type).setArray(new Float32Array(values)).setBuffer(document.getRoot().listBuffers()[0]!);
  const primitive = document
    .createPrimitive()
    .setAttribute('POSITION', accessor('VEC3', data.positions))
    .setAttribute('NORMAL', accessor('VEC3', data.normals))
    .setAttribute('TEXCOORD_0', accessor('VEC2', data.uvs))
    .setIndices(
      document.createAccessor().setType('SCALAR').setArray(new Uint32Array(data.indices)).setBuffer(document.getRoot().listBuffers()[0]!),
    )
    .setMaterial(material);
  return document.createMesh(name).addPrimitive(primitive);
}

import { Document, WebIO } from '@gltf-transform/core';
import { KHRMaterialsTransmission, KHRMaterialsVolume, KHRTextureTransform } from '@gltf-transform/extensions';
import { ImportRefused, type ImportedScene } from '@brelvin/core';
import { gltfFile, type GltfJson } from './gltf-json';
import { readGltf } from './read-gltf';

const TRIANGLE = new Float32Array([0, 0, 0, 1, 0, 0, 0, 1, 0]);

function triangle(change: (document: Document) => void = () => undefined): Document {
  const document = new Document();
  const buffer = document.createBuffer();
  const positions = document.createAccessor('p').setType('VEC3').setArray(TRIANGLE).setBuffer(buffer);
  const primitive = document.createPrimitive().setAttribute('POSITION', positions);
  const node = document.createNode('Sail').setMesh(document.createMesh('Cloth').addPrimitive(primitive));
  document.createScene().addChild(node);
  change(document);
  return document;
}

const io = (): WebIO => new WebIO().registerExtensions([KHRMaterialsTransmission, KHRMaterialsVolume, KHRTextureTransform]);

async function read(document: Document): Promise<ImportedScene> {
  return readGltf({ name: 'sail.glb', bytes: new Uint8Array(await io().writeBinary(document)) }, []);
}

const jsonFile = (json: object): Uint8Array<ArrayBuffer> =>
  new Uint8Array(new TextEncoder().encode(JSON.stringify({ asset: { version: '2.0' }, ...json })));

describe('A glTF file', () => {
  it('gives its nodes as pieces, placed, without normals flat', async () => {
    const { pieces } = await read(
      triangle((document) => {
        document.getRoot().listNodes()[0]?.setTranslation([1, 2, 3]);
      }),
    );
    expect(pieces.length).toBe(1);
    const [piece] = pieces;
    expect(piece?.name).toBe('Sail');
    expect(piece?.matrix?.slice(12, 15)).toEqual([1, 2, 3]);
    expect(piece?.flat).toBeTrue();
    expect([...(piece?.positions ?? [])]).toEqual([...TRIANGLE]);
  });

  it('gives numbers that are stored as whole ones by their share of the largest', async () => {
    const { pieces } = await read(
      triangle((document) => {
        const [primitive] = document.getRoot().listMeshes()[0]?.listPrimitives() ?? [];
        const colours = document
          .createAccessor('c')
          .setType('VEC3')
          .setNormalized(true)
          .setArray(new Uint8Array([255, 0, 0, 0, 255, 0, 0, 0, 51]));
        primitive?.setAttribute('COLOR_0', colours.setBuffer(document.getRoot().listBuffers()[0] ?? null));
      }),
    );
    const colours = [...(pieces[0]?.colours ?? [])].map((each) => Math.round(each * 1000) / 1000);
    expect(colours).toEqual([1, 0, 0, 1, 0, 1, 0, 1, 0, 0, 0.2, 1]);
  });

  it('gives strips and fans as triangles that all go one way round', async () => {
    for (const [mode, wanted] of [
      [5, [0, 1, 2, 2, 1, 3]],
      [6, [0, 1, 2, 0, 2, 3]],
    ] as const) {
      const { pieces } = await read(
        triangle((document) => {
          const [primitive] = document.getRoot().listMeshes()[0]?.listPrimitives() ?? [];
          const square = new Float32Array([0, 0, 0, 1, 0, 0, 0, 1, 0, 1, 1, 0]);
          document.getRoot().listAccessors()[0]?.setArray(square);
          primitive?.setMode(mode);
        }),
      );
      expect([...(pieces[0]?.indices ?? [])]).toEqual([...wanted]);
    }
  });

  it('says what was left out', async () => {
    const { pieces, words } = await read(
      triangle((document) => {
        const [mesh] = document.getRoot().listMeshes();
        const [primitive] = mesh?.listPrimitives() ?? [];
        const positions = document.getRoot().listAccessors()[0] ?? null;
        primitive?.addTarget(document.createPrimitiveTarget().setAttribute('POSITION', positions));
        mesh?.addPrimitive(document.createPrimitive().setMode(1).setAttribute('POSITION', positions));
        document
          .getRoot()
          .listNodes()[0]
          ?.setSkin(document.createSkin().addJoint(document.getRoot().listNodes()[0]!))
          .setTranslation([9, 9, 9]);
        document.createAnimation();
      }),
    );
    expect(pieces.length).toBe(1);
    expect(pieces[0]?.matrix).withContext('a skin is not moved by its node').toBeUndefined();
    expect(words).toEqual([
      '1 sets of lines was left out: only triangles are drawn.',
      'Its skeleton was left out: the mesh stands in its rest pose.',
      'Its morph targets were left out: the mesh has its base shape.',
      '1 animation was left out.',
    ]);
  });

  it('gives materials with their extensions, and images with how they lie', async () => {
    const { materials, images, words } = await read(
      triangle((document) => {
        const texture = document
          .createTexture('glaze')
          .setMimeType('image/png')
          .setImage(new Uint8Array([0x89, 0x50, 0x4e, 0x47]));
        const odd = document
          .createTexture('odd')
          .setMimeType('image/gif')
          .setImage(new Uint8Array([0x47, 0x49, 0x46]));
        const glass = document.createExtension(KHRMaterialsTransmission).createTransmission().setTransmissionFactor(0.8);
        const body = document.createExtension(KHRMaterialsVolume).createVolume().setThicknessFactor(0.2).setAttenuationColor([1, 0.5, 0.2]);
        const transform = document.createExtension(KHRTextureTransform).createTransform().setScale([3, 3]).setRotation(0.5);
        const material = document
          .createMaterial('Globe')
          .setBaseColorTexture(texture)
          .setOcclusionTexture(odd)
          .setAlphaMode('MASK')
          .setAlphaCutoff(0.25)
          .setExtension('KHR_materials_transmission', glass)
          .setExtension('KHR_materials_volume', body);
        material.getBaseColorTextureInfo()?.setWrapS(33071).setMagFilter(9728).setExtension('KHR_texture_transform', transform);
        material.getOcclusionTextureInfo()?.setTexCoord(1);
        document.getRoot().listMeshes()[0]?.listPrimitives()[0]?.setMaterial(material);
      }),
    );
    const [globe] = materials;
    expect(globe?.features).toEqual({
      hasTransmission: { transmission: 0.8 },
      hasVolume: { thickness: 0.2, absorbed: [1, 0.5, 0.2], absorbedAt: 0 },
    });
    expect([globe?.alpha, globe?.cutoff]).toEqual(['cut', 0.25]);
    expect(globe?.maps.baseColour).toEqual({
      image: 0,
      uvSet: 0,
      wrapX: 'clamp',
      wrapY: 'repeat',
      filter: 'sharp',
      offset: [0, 0],
      scale: [3, 3],
      rotation: 0.5,
    });
    expect(globe?.maps.occlusion?.uvSet).toBe(1);
    expect(images.map(({ name, bytes }) => [name, bytes.length])).toEqual([
      ['glaze', 4],
      ['odd', 0],
    ]);
    expect(words).toEqual(['The image “odd” is image/gif; PNG, JPEG and WebP are taken.']);
  });

  it('comes with its files, wherever they lie', async () => {
    const { json, resources } = await io().writeJSON(triangle());
    const [uri = ''] = Object.keys(resources);
    const main = { name: 'sail.gltf', bytes: jsonFile(json) };
    const bin = { name: `loft/${uri}`, bytes: new Uint8Array(resources[uri] ?? []) };
    expect((await readGltf(main, [main, bin])).pieces.length).toBe(1);
    await expectAsync(readGltf(main, [main])).toBeRejectedWithError(ImportRefused, /is missing, which holds its triangles/);
  });

  it('comes with its files also as a GLB, by names that hold a bare %', async () => {
    const { json, resources } = await io().writeJSON(triangle());
    const [uri = ''] = Object.keys(resources);
    const [buffer] = json.buffers ?? [];
    Object.assign(buffer ?? {}, { uri: '100%25 wool 50%.bin' });
    const text = new TextEncoder().encode(JSON.stringify(json).padEnd(4096));
    const glb = new Uint8Array(20 + text.length);
    const head = new DataView(glb.buffer);
    [0x46546c67, 2, glb.length, text.length, 0x4e4f534a].forEach((word, index) => head.setUint32(index * 4, word, true));
    glb.set(text, 20);
    const main = { name: 'kit/sail.glb', bytes: glb };
    const bin = { name: 'kit/100% wool 50%.bin', bytes: new Uint8Array(resources[uri] ?? []) };
    expect((await readGltf(main, [main, bin])).pieces[0]?.positions.length).toBe(9);
    const short = { ...bin, bytes: bin.bytes.slice(0, 8) };
    await expectAsync(readGltf(main, [main, short])).toBeRejectedWithError(ImportRefused, /should have 36 bytes, but 8/);
  });

  it('takes no file whose name only ends like the one it names, says which of several it took, and asks no one outside', async () => {
    const { json, resources } = await io().writeJSON(triangle());
    const [uri = ''] = Object.keys(resources);
    const main = { name: 'sail.gltf', bytes: jsonFile({ ...json, images: [{ uri: 'wood.png' }] }) };
    const bin = { name: uri, bytes: new Uint8Array(resources[uri] ?? []) };
    const dark = { name: 'dark_wood.png', bytes: new Uint8Array(1) };
    expect((await readGltf(main, [main, bin, dark])).words.join()).toContain('“wood.png” is missing');
    const [a, b] = ['a/wood.png', 'b/wood.png'].map((name) => ({ name, bytes: new Uint8Array(1) }));
    expect((await readGltf(main, [main, bin, a!, b!])).words.join()).toContain('may be “a/wood.png” or “b/wood.png”');
    const outside = { name: 'x.gltf', bytes: jsonFile({ buffers: [{ byteLength: 4, uri: 'https://elsewhere.example/wood.png' }] }) };
    await expectAsync(readGltf(outside, [{ name: 'wood.png', bytes: new Uint8Array(4) }])).toBeRejectedWithError(ImportRefused, /missing/);
  });

  const broken: Readonly<Record<string, readonly [GltfJson | object, RegExp]>> = {
    'another version': [{ asset: { version: '1.0' } }, /glTF 1\.0/],
    meshopt: [{ extensionsRequired: ['EXT_meshopt_compression'] }, /compressed by meshopt/],
    'a view past its buffer': [
      { buffers: [{ byteLength: 4 }], bufferViews: [{ buffer: 0, byteOffset: 2, byteLength: 4 }] },
      /Buffer view 0 reaches past/,
    ],
    'a view of nothing': [{ bufferViews: [{ buffer: 3, byteLength: 4 }] }, /must be one of its 0 buffers, but is 3/],
    'an accessor past its view': [
      {
        buffers: [{ byteLength: 40, uri: 'a.bin' }],
        bufferViews: [{ buffer: 0, byteLength: 40 }],
        accessors: [{ bufferView: 0, componentType: 5126, count: 4, type: 'VEC3' }],
      },
      /Accessor 0 reaches past/,
    ],
    'an accessor of no kind': [{ accessors: [{ componentType: 1, count: 1, type: 'VEC3' }] }, /does not have/],
    'two parents': [{ nodes: [{ children: [2] }, { children: [2] }, {}] }, /two parents/],
    'its own ancestor': [{ nodes: [{ children: [1] }, { children: [2] }, { children: [0] }] }, /own ancestor/],
    'a child that is not there': [{ nodes: [{ children: [7] }] }, /not there/],
    'a list that is none': [{ nodes: {} }, /nodes must be a list, but is {}/],
    'a text for a number': [{ buffers: [{ byteLength: '4' }] }, /buffers\[0\]\.byteLength must be a whole number/],
    'a mesh without primitives': [{ meshes: [{}] }, /no meshes\[0\]\.primitives/],
    'primitives that are no list': [{ meshes: [{ primitives: 3 }] }, /meshes\[0\]\.primitives must be a list, but is 3/],
    'an attribute that is no place': [{ meshes: [{ primitives: [{ attributes: { POSITION: 'p' } }] }] }, /POSITION must be a whole number/],
    'an attribute that is not there': [{ meshes: [{ primitives: [{ attributes: { POSITION: 2 } }] }] }, /one of its 0 accessors/],
    'a texture that is nothing': [{ materials: [{ normalTexture: null }] }, /normalTexture must be an object, but is nothing/],
    'a version that is a number': [{ asset: { version: 2 } }, /of no version/],
  };
  for (const [what, [json, words]] of Object.entries(broken))
    it(`is refused: ${what}`, async () => {
      await expectAsync(readGltf({ name: 'x.gltf', bytes: jsonFile(json) }, [])).toBeRejectedWithError(ImportRefused, words);
    });

  it('is refused when it is cut anywhere, or is something else', async () => {
    const whole = new Uint8Array(await io().writeBinary(triangle()));
    for (const length of [12, 18, 100, whole.length - 10]) expect(() => gltfFile(whole.slice(0, length))).toThrowError(ImportRefused);
    expect(() => gltfFile(new TextEncoder().encode('not json'))).toThrowError(ImportRefused, /damaged or cut off/);
    expect(() => gltfFile(new TextEncoder().encode('{"a":1}'))).toThrowError(ImportRefused, /no glTF file/);
  });
});

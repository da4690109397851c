import { ImportRefused } from '@brelvin/core';

/** What a member of a glTF file's JSON must be (glTF 2.0, section 5, properties reference). */
type Shape =
  | 'number'
  | 'whole'
  | 'text'
  | 'switch'
  | 'object'
  /** A place in one of the file's lists. */
  | { readonly to: ListName }
  | { readonly list: Shape }
  | { readonly map: Shape }
  | { readonly members: Readonly<Record<string, Shape>> };

type ListName =
  | 'accessors'
  | 'animations'
  | 'buffers'
  | 'bufferViews'
  | 'cameras'
  | 'images'
  | 'materials'
  | 'meshes'
  | 'nodes'
  | 'samplers'
  | 'scenes'
  | 'skins'
  | 'textures';

const NUMBERS: Shape = { list: 'number' };
const MAP: Shape = { members: { index: { to: 'textures' }, texCoord: 'whole', scale: 'number', strength: 'number', extensions: 'object' } };
const VIEW: Readonly<Record<string, Shape>> = { bufferView: { to: 'bufferViews' }, byteOffset: 'whole' };

/** The lists of a file, and what stands in each. Members that nobody reads here are not looked at. */
const LISTS: Readonly<Record<ListName, Readonly<Record<string, Shape>>>> = {
  accessors: {
    ...VIEW,
    componentType: 'whole',
    count: 'whole',
    type: 'text',
    normalized: 'switch',
    min: NUMBERS,
    max: NUMBERS,
    name: 'text',
    sparse: {
      members: {
        count: 'whole',
        indices: { members: { ...VIEW, componentType: 'whole' } },
        values: { members: VIEW },
      },
    },
  },
  animations: {
    name: 'text',
    channels: {
      list: { members: { sampler: 'whole', target: { members: { node: { to: 'nodes' }, path: 'text' } } } },
    },
    samplers: { list: { members: { input: { to: 'accessors' }, output: { to: 'accessors' }, interpolation: 'text' } } },
  },
  buffers: { byteLength: 'whole', uri: 'text', name: 'text' },
  bufferViews: { buffer: { to: 'buffers' }, byteOffset: 'whole', byteLength: 'whole', byteStride: 'whole', target: 'whole' },
  cameras: { type: 'text', perspective: 'object', orthographic: 'object', name: 'text' },
  images: { uri: 'text', mimeType: 'text', name: 'text', bufferView: { to: 'bufferViews' } },
  materials: {
    name: 'text',
    alphaMode: 'text',
    alphaCutoff: 'number',
    doubleSided: 'switch',
    emissiveFactor: NUMBERS,
    extensions: 'object',
    normalTexture: MAP,
    occlusionTexture: MAP,
    emissiveTexture: MAP,
    pbrMetallicRoughness: {
      members: {
        baseColorFactor: NUMBERS,
        metallicFactor: 'number',
        roughnessFactor: 'number',
        baseColorTexture: MAP,
        metallicRoughnessTexture: MAP,
      },
    },
  },
  meshes: {
    name: 'text',
    weights: NUMBERS,
    primitives: {
      list: {
        members: {
          attributes: { map: { to: 'accessors' } },
          indices: { to: 'accessors' },
          material: { to: 'materials' },
          mode: 'whole',
          targets: { list: { map: { to: 'accessors' } } },
          extensions: 'object',
        },
      },
    },
  },
  nodes: {
    name: 'text',
    children: { list: 'whole' },
    mesh: { to: 'meshes' },
    skin: { to: 'skins' },
    camera: { to: 'cameras' },
    matrix: NUMBERS,
    translation: NUMBERS,
    rotation: NUMBERS,
    scale: NUMBERS,
    weights: NUMBERS,
    extensions: 'object',
  },
  samplers: { magFilter: 'whole', minFilter: 'whole', wrapS: 'whole', wrapT: 'whole', name: 'text' },
  scenes: { name: 'text', nodes: { list: { to: 'nodes' } } },
  skins: { joints: { list: { to: 'nodes' } }, skeleton: { to: 'nodes' }, inverseBindMatrices: { to: 'accessors' }, name: 'text' },
  textures: { sampler: { to: 'samplers' }, source: { to: 'images' }, name: 'text', extensions: 'object' },
};

/** Members without which what stands there cannot be read. */
const NEEDED: Readonly<Partial<Record<ListName, readonly string[]>>> = {
  accessors: ['componentType', 'count', 'type'],
  buffers: ['byteLength'],
  bufferViews: ['buffer', 'byteLength'],
  meshes: ['primitives'],
  skins: ['joints'],
};

const WORDS = {
  number: 'a number',
  whole: 'a whole number from 0 on',
  text: 'a text',
  switch: 'true or false',
  object: 'an object',
} as const;

/** Whether everything in a glTF file's JSON is of the kind that it must be. @throws ImportRefused naming what is not */
export function checkGltfShape(json: Readonly<Record<string, unknown>>): void {
  const file: Record<string, unknown> = { ...json };
  for (const name of ['extensionsUsed', 'extensionsRequired']) expectShape(file[name], { list: 'text' }, name, file);
  for (const name of Object.keys(LISTS)) expectShape(file[name], { list: 'object' }, name, file);
  for (const [name, members] of Object.entries(LISTS)) {
    const needed = NEEDED[name as ListName] ?? [];
    ((file[name] ?? []) as readonly Record<string, unknown>[]).forEach((each, index) => {
      const missing = needed.find((member) => each[member] === undefined);
      if (missing) throw new ImportRefused(`Its JSON has no ${name}[${index}].${missing}: the file is damaged. Export it again.`);
      expectShape(each, { members }, `${name}[${index}]`, file);
    });
  }
  expectShape(file['scene'], { to: 'scenes' }, 'scene', file);
}

function expectShape(value: unknown, shape: Shape, at: string, file: Readonly<Record<string, unknown>>): void {
  if (value === undefined) return;
  const refuse = (wanted: string): never => {
    const found = Array.isArray(value) ? 'a list' : value === null ? 'nothing' : `${JSON.stringify(value)}`.slice(0, 40);
    throw new ImportRefused(`In its JSON ${at} must be ${wanted}, but is ${found}: the file is damaged. Export it again.`);
  };
  if (typeof shape === 'string') {
    if (!isPlain(value, shape)) refuse(WORDS[shape]);
  } else if ('to' in shape) {
    if (!isPlain(value, 'whole')) refuse(WORDS.whole);
    const { length } = (file[shape.to] ?? []) as readonly unknown[];
    if ((value as number) >= length) refuse(`one of its ${length} ${shape.to}`);
  } else if ('list' in shape) {
    if (!Array.isArray(value)) refuse('a list');
    (value as readonly unknown[]).forEach((each, index) => expectShape(each ?? null, shape.list, `${at}[${index}]`, file));
  } else {
    if (!isPlain(value, 'object')) refuse(WORDS.object);
    for (const [name, each] of Object.entries(value as object)) {
      const wanted = 'map' in shape ? shape.map : Object.hasOwn(shape.members, name) ? shape.members[name] : undefined;
      if (wanted) expectShape(each ?? null, wanted, `${at}.${name}`, file);
    }
  }
}

function isPlain(value: unknown, shape: keyof typeof WORDS): boolean {
  switch (shape) {
    case 'number':
      return typeof value === 'number' && Number.isFinite(value);
    case 'whole':
      return Number.isSafeInteger(value) && (value as number) >= 0;
    case 'text':
      return typeof value === 'string';
    case 'switch':
      return typeof value === 'boolean';
    case 'object':
      return typeof value === 'object' && value !== null && !Array.isArray(value);
  }
}

import type { BuiltinSection } from './builtin';

/** Overloads for images of floats and of whole numbers: `G` and `g` stand for both. */
function each(...patterns: readonly string[]): string[] {
  return patterns.flatMap((pattern) => ['', 'i', 'u'].map((kind) => pattern.replace(/^G/, `${kind}vec4`).replace('(g', `(${kind}`)));
}

const LEVEL = { readsImage: true, neighbours: 'level' } as const;

/** Texture lookup functions, GLSL ES 3.00 section 8.8. */
export const TEXTURES: BuiltinSection = {
  texture: {
    signatures: [
      ...each('G(gsampler2D,vec2)', 'G(gsamplerCube,vec3)', 'G(gsampler3D,vec3)', 'G(gsampler2DArray,vec3)'),
      ...each('G(gsampler2D,vec2,float)', 'G(gsamplerCube,vec3,float)', 'G(gsampler3D,vec3,float)', 'G(gsampler2DArray,vec3,float)'),
      ...['float(sampler2DShadow,vec3)', 'float(samplerCubeShadow,vec4)', 'float(sampler2DArrayShadow,vec4)'],
      ...['float(sampler2DShadow,vec3,float)', 'float(samplerCubeShadow,vec4,float)'],
    ],
    help: 'An image at a place (0, 0 is its top left corner), its size chosen by how densely neighbouring pixels lie; a last number moves that choice.',
    ...LEVEL,
  },
  textureProj: {
    signatures: [
      ...each('G(gsampler2D,vec3)', 'G(gsampler2D,vec4)', 'G(gsampler3D,vec4)'),
      ...each('G(gsampler2D,vec3,float)', 'G(gsampler2D,vec4,float)', 'G(gsampler3D,vec4,float)'),
      ...['float(sampler2DShadow,vec4)', 'float(sampler2DShadow,vec4,float)'],
    ],
    help: 'An image at a place that is divided by its last component first.',
    ...LEVEL,
  },
  textureLod: {
    signatures: [
      ...each('G(gsampler2D,vec2,float)', 'G(gsamplerCube,vec3,float)', 'G(gsampler3D,vec3,float)', 'G(gsampler2DArray,vec3,float)'),
      'float(sampler2DShadow,vec3,float)',
    ],
    help: 'An image at a place, in a size of its own: 0 is the finest.',
    readsImage: true,
  },
  textureOffset: {
    signatures: [
      ...each('G(gsampler2D,vec2,ivec2)', 'G(gsampler3D,vec3,ivec3)', 'G(gsampler2DArray,vec3,ivec2)'),
      ...each('G(gsampler2D,vec2,ivec2,float)', 'G(gsampler3D,vec3,ivec3,float)', 'G(gsampler2DArray,vec3,ivec2,float)'),
      ...['float(sampler2DShadow,vec3,ivec2)', 'float(sampler2DShadow,vec3,ivec2,float)'],
    ],
    help: 'An image at a place, moved by some texels: constants from −8 to 7.',
    offset: 2,
    ...LEVEL,
  },
  textureLodOffset: {
    signatures: [
      ...each('G(gsampler2D,vec2,float,ivec2)', 'G(gsampler3D,vec3,float,ivec3)', 'G(gsampler2DArray,vec3,float,ivec2)'),
      'float(sampler2DShadow,vec3,float,ivec2)',
    ],
    help: 'An image at a place in a size of its own, moved by some texels: constants from −8 to 7.',
    offset: 3,
    readsImage: true,
  },
  textureProjLod: {
    signatures: [
      ...each('G(gsampler2D,vec3,float)', 'G(gsampler2D,vec4,float)', 'G(gsampler3D,vec4,float)'),
      'float(sampler2DShadow,vec4,float)',
    ],
    help: 'An image at a place that is divided by its last component first, in a size of its own.',
    readsImage: true,
  },
  textureProjOffset: {
    signatures: [
      ...each('G(gsampler2D,vec3,ivec2)', 'G(gsampler2D,vec4,ivec2)', 'G(gsampler3D,vec4,ivec3)'),
      ...each('G(gsampler2D,vec3,ivec2,float)', 'G(gsampler2D,vec4,ivec2,float)', 'G(gsampler3D,vec4,ivec3,float)'),
      ...['float(sampler2DShadow,vec4,ivec2)', 'float(sampler2DShadow,vec4,ivec2,float)'],
    ],
    help: 'An image at a place that is divided by its last component first, moved by some texels: constants from −8 to 7.',
    offset: 2,
    ...LEVEL,
  },
  textureProjLodOffset: {
    signatures: [
      ...each('G(gsampler2D,vec3,float,ivec2)', 'G(gsampler2D,vec4,float,ivec2)', 'G(gsampler3D,vec4,float,ivec3)'),
      'float(sampler2DShadow,vec4,float,ivec2)',
    ],
    help: 'An image at a place that is divided by its last component first, in a size of its own, moved by some texels.',
    offset: 3,
    readsImage: true,
  },
  textureGrad: {
    signatures: [
      ...each(
        'G(gsampler2D,vec2,vec2,vec2)',
        'G(gsamplerCube,vec3,vec3,vec3)',
        'G(gsampler3D,vec3,vec3,vec3)',
        'G(gsampler2DArray,vec3,vec2,vec2)',
      ),
      ...['float(sampler2DShadow,vec3,vec2,vec2)', 'float(samplerCubeShadow,vec4,vec3,vec3)', 'float(sampler2DArrayShadow,vec4,vec2,vec2)'],
    ],
    help: 'An image at a place, its size chosen by the differences given.',
    readsImage: true,
  },
  textureGradOffset: {
    signatures: [
      ...each('G(gsampler2D,vec2,vec2,vec2,ivec2)', 'G(gsampler3D,vec3,vec3,vec3,ivec3)', 'G(gsampler2DArray,vec3,vec2,vec2,ivec2)'),
      ...['float(sampler2DShadow,vec3,vec2,vec2,ivec2)', 'float(sampler2DArrayShadow,vec4,vec2,vec2,ivec2)'],
    ],
    help: 'An image at a place, its size chosen by the differences given, moved by some texels: constants from −8 to 7.',
    offset: 4,
    readsImage: true,
  },
  textureProjGrad: {
    signatures: [
      ...each('G(gsampler2D,vec3,vec2,vec2)', 'G(gsampler2D,vec4,vec2,vec2)', 'G(gsampler3D,vec4,vec3,vec3)'),
      'float(sampler2DShadow,vec4,vec2,vec2)',
    ],
    help: 'An image at a place that is divided by its last component first, its size chosen by the differences given.',
    readsImage: true,
  },
  textureProjGradOffset: {
    signatures: [
      ...each('G(gsampler2D,vec3,vec2,vec2,ivec2)', 'G(gsampler2D,vec4,vec2,vec2,ivec2)', 'G(gsampler3D,vec4,vec3,vec3,ivec3)'),
      'float(sampler2DShadow,vec4,vec2,vec2,ivec2)',
    ],
    help: 'An image at a place that is divided by its last component first, its size chosen by the differences given, moved by some texels.',
    offset: 4,
    readsImage: true,
  },
  texelFetch: {
    signatures: each('G(gsampler2D,ivec2,int)', 'G(gsampler3D,ivec3,int)', 'G(gsampler2DArray,ivec3,int)'),
    help: 'One texel by its column and row, unfiltered.',
    readsImage: true,
  },
  texelFetchOffset: {
    signatures: each('G(gsampler2D,ivec2,int,ivec2)', 'G(gsampler3D,ivec3,int,ivec3)', 'G(gsampler2DArray,ivec3,int,ivec2)'),
    help: 'One texel by its column and row, unfiltered, moved by some texels: constants from −8 to 7.',
    offset: 3,
    readsImage: true,
  },
  textureSize: {
    signatures: [
      ...['', 'i', 'u'].flatMap((kind) => [
        `ivec2(${kind}sampler2D,int)`,
        `ivec2(${kind}samplerCube,int)`,
        `ivec3(${kind}sampler3D,int)`,
        `ivec3(${kind}sampler2DArray,int)`,
      ]),
      ...['ivec2(sampler2DShadow,int)', 'ivec2(samplerCubeShadow,int)', 'ivec3(sampler2DArrayShadow,int)'],
    ],
    help: 'Width and height of an image in texels, at a size.',
  },
};

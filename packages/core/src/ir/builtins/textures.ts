import type { BuiltinSection } from './builtin';

/** Texture lookup functions, GLSL ES 3.00 section 8.8. */
export const TEXTURES: BuiltinSection = {
  texture: {
    signatures: ['vec4(sampler2D,vec2)', 'vec4(samplerCube,vec3)'],
    help: 'An image at a place (0, 0 is its top left corner), its size chosen by how densely neighbouring pixels lie.',
    readsImage: true,
    neighbours: 'level',
  },
  textureProj: {
    signatures: ['vec4(sampler2D,vec3)', 'vec4(sampler2D,vec4)'],
    help: 'An image at a place that is divided by its last component first.',
    readsImage: true,
    neighbours: 'level',
  },
  textureLod: {
    signatures: ['vec4(sampler2D,vec2,float)', 'vec4(samplerCube,vec3,float)'],
    help: 'An image at a place, in a size of its own: 0 is the finest.',
    readsImage: true,
  },
  textureGrad: {
    signatures: ['vec4(sampler2D,vec2,vec2,vec2)', 'vec4(samplerCube,vec3,vec3,vec3)'],
    help: 'An image at a place, its size chosen by the differences given.',
    readsImage: true,
  },
  texelFetch: { signatures: ['vec4(sampler2D,ivec2,int)'], help: 'One texel by its column and row, unfiltered.', readsImage: true },
  textureSize: {
    signatures: ['ivec2(sampler2D,int)', 'ivec2(samplerCube,int)'],
    help: 'Width and height of an image in texels, at a size.',
  },
};

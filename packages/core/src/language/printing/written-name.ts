import { BUILTIN_FUNCTION_NAMES } from './reserved';

const RESERVED = new Set(
  `attribute const uniform varying layout centroid flat smooth break continue do for while switch case default if else in out inout
  float int void bool true false invariant discard return mat2 mat3 mat4 mat2x2 mat2x3 mat2x4 mat3x2 mat3x3 mat3x4 mat4x2 mat4x3 mat4x4
  vec2 vec3 vec4 ivec2 ivec3 ivec4 bvec2 bvec3 bvec4 uint uvec2 uvec3 uvec4
  lowp mediump highp precision sampler2D sampler3D samplerCube sampler2DShadow samplerCubeShadow sampler2DArray sampler2DArrayShadow
  isampler2D isampler3D isamplerCube isampler2DArray usampler2D usampler3D usamplerCube usampler2DArray struct
  coherent volatile restrict readonly writeonly resource atomic_uint noperspective patch sample subroutine common partition active asm class union
  enum typedef template this goto inline noinline public static extern external interface long short double half fixed unsigned superp input output
  hvec2 hvec3 hvec4 dvec2 dvec3 dvec4 fvec2 fvec3 fvec4 sampler3DRect filter image1D image2D image3D imageCube iimage1D iimage2D iimage3D
  iimageCube uimage1D uimage2D uimage3D uimageCube image1DArray image2DArray iimage1DArray iimage2DArray uimage1DArray uimage2DArray
  imageBuffer iimageBuffer uimageBuffer sampler1D sampler1DShadow sampler1DArray sampler1DArrayShadow isampler1D isampler1DArray usampler1D
  usampler1DArray sampler2DRect sampler2DRectShadow isampler2DRect usampler2DRect samplerBuffer isamplerBuffer usamplerBuffer sampler2DMS
  isampler2DMS usampler2DMS sampler2DMSArray isampler2DMSArray usampler2DMSArray sizeof cast namespace using main texture2D textureCube`.split(
    /\s+/,
  ),
);

/**
 * A name that a text in GLSL ES 3.00 may use (section 3.8): not a keyword, not a built-in, not starting with `gl_`, no
 * double underscore, and short enough for every device.
 */
export function writtenName(name: string): string {
  const clean = name
    .replace(/[^A-Za-z0-9_]/g, '_')
    .replace(/_{2,}/g, '_')
    .slice(0, LONGEST);
  if (RESERVED.has(clean) || BUILTIN_FUNCTION_NAMES.has(clean) || /^(gl_|device|webgl_|_webgl_|\d)/.test(clean)) return `u_${clean}`;
  return clean;
}

/** WebGL 2 takes 1,024 characters; nobody reads names that long. */
const LONGEST = 200;

/** Keywords and words that are kept for later versions (sections 3.7 and 3.8); names of built-in functions are not among them. */
export function isReserved(name: string): boolean {
  return RESERVED.has(name) && !OURS.has(name);
}

/** Kept clear of in what we write, and free in what is read. */
const OURS: ReadonlySet<string> = new Set(['main', 'texture2D', 'textureCube']);

import { BUILTIN_FUNCTION_NAMES } from './reserved';

const RESERVED = new Set(
  `attribute const uniform varying layout centroid flat smooth break continue do for while switch case default if else in out inout
  float int void bool true false invariant discard return mat2 mat3 mat4 vec2 vec3 vec4 ivec2 ivec3 ivec4 bvec2 bvec3 bvec4 uint uvec2 uvec3 uvec4
  lowp mediump highp precision sampler2D samplerCube struct
  coherent volatile restrict readonly writeonly resource atomic_uint noperspective patch sample subroutine common partition active asm class union
  enum typedef template this goto inline noinline public static extern external interface long short double half fixed unsigned superp input output
  filter namespace using main texture2D textureCube`.split(/\s+/),
);

/**
 * A name that GLSL ES 3.00 accepts (section 3.8): not a keyword, not a built-in, not starting with `gl_`, no
 * double underscore.
 */
export function glslName(name: string): string {
  const clean = name.replace(/[^A-Za-z0-9_]/g, '_').replace(/_{2,}/g, '_');
  if (RESERVED.has(clean) || BUILTIN_FUNCTION_NAMES.has(clean) || /^(gl_|device|\d)/.test(clean)) return `u_${clean}`;
  return clean;
}

/** Built-in function names of GLSL ES 3.00 that a program's own names must not hide. */
export const BUILTIN_FUNCTION_NAMES: ReadonlySet<string> = new Set(
  `radians degrees sin cos tan asin acos atan sinh cosh tanh asinh acosh atanh pow exp log exp2 log2 sqrt inversesqrt abs sign floor trunc
  round roundEven ceil fract mod modf min max clamp mix step smoothstep isnan isinf floatBitsToInt floatBitsToUint intBitsToFloat uintBitsToFloat
  packSnorm2x16 unpackSnorm2x16 packUnorm2x16 unpackUnorm2x16 packHalf2x16 unpackHalf2x16 length distance dot cross normalize faceforward reflect
  refract matrixCompMult outerProduct transpose determinant inverse lessThan lessThanEqual greaterThan greaterThanEqual equal notEqual any all not
  textureSize texture textureProj textureLod textureOffset texelFetch texelFetchOffset textureGrad dFdx dFdy fwidth`.split(/\s+/),
);

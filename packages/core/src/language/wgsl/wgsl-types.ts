import { matrix, NAMED_TYPES, ofSize, type ScalarName, type StructType, type Type } from '../../ir/types';

const SCALARS: Readonly<Record<string, ScalarName>> = { f32: 'float', i32: 'int', u32: 'uint', bool: 'bool' };
const WORDS: Readonly<Record<ScalarName, string>> = { float: 'f32', int: 'i32', uint: 'u32', bool: 'bool' };
const SHORT: Readonly<Record<ScalarName, string>> = { float: 'f', int: 'i', uint: 'u', bool: '<bool>' };

/** Images by their names in WGSL, with the sampler that they are in the IR. */
export const IMAGES: Readonly<Record<string, string>> = {
  texture_2d: 'sampler2D',
  texture_cube: 'samplerCube',
  texture_3d: 'sampler3D',
  texture_2d_array: 'sampler2DArray',
  texture_depth_2d: 'sampler2DShadow',
  texture_depth_cube: 'samplerCubeShadow',
  texture_depth_2d_array: 'sampler2DArrayShadow',
};

/** Whether a `<` behind a name opens a template. */
export function isTemplated(name: string): boolean {
  return /^(?:vec[234]|mat[234]x[234]|array|ptr|atomic|bitcast|texture_\w+)$/.test(name);
}

/** Types that need no template: scalars, and vectors and matrices by their short names. */
export function plainType(name: string): Type | undefined {
  const scalar = Object.hasOwn(SCALARS, name) ? SCALARS[name] : undefined;
  if (scalar) return ofSize(scalar, 1);
  const short = /^vec([234])([fiu])$/.exec(name);
  if (short) return ofSize(short[2] === 'f' ? 'float' : short[2] === 'i' ? 'int' : 'uint', Number(short[1]));
  const square = /^mat([234])x([234])f$/.exec(name);
  if (square) return matrix(Number(square[1]), Number(square[2]));
  return Object.hasOwn(IMAGES, name) && name.startsWith('texture_depth') ? NAMED_TYPES.get(IMAGES[name] ?? '') : undefined;
}

/** The WGSL spelling of a type. */
export function wgslTypeName(type: Type, structs: (struct: StructType) => string = ({ name }) => name): string {
  switch (type.kind) {
    case 'void':
      return 'nothing';
    case 'scalar':
      return WORDS[type.scalar];
    case 'vector':
      return `vec${type.size}${SHORT[type.scalar]}`;
    case 'matrix':
      return `mat${type.columns}x${type.rows}f`;
    case 'struct':
      return structs(type);
    case 'array':
      return `array<${wgslTypeName(type.element, structs)}, ${type.length}>`;
    case 'sampler': {
      const image = Object.keys(IMAGES).find((each) => IMAGES[each] === type.name.replace(/^[iu]/, '')) ?? type.name;
      return type.name.endsWith('Shadow')
        ? image
        : `${image}<${type.name.startsWith('i') ? 'i32' : type.name.startsWith('u') ? 'u32' : 'f32'}>`;
    }
  }
}

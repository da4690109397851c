import type { RibbonType } from '@brelvin/contract';
import type { Meaning } from '../catalogue/kind';
import { isTakenApart } from '../catalogue/whole-structs';
import { construct, float, member, swizzle } from '../ir/build';
import type { Expression } from '../ir/ir';
import { FLOAT, VEC2, VEC3, VEC4, typeName, type StructType, type Type } from '../ir/types';

/** The ribbon type of a value of this IR type that means this. */
export function ribbonType(type: Type, meaning: Meaning): RibbonType {
  switch (typeName(type)) {
    case 'float':
    case 'int':
    case 'bool':
      return 'number';
    case 'vec2':
      return 'vec2';
    case 'vec3':
      return meaning === 'colour' ? 'colour' : 'vec3';
    case 'vec4':
      return 'vec4';
    case 'Lit':
      return 'light';
    case 'Field':
      return 'field';
    case 'sampler2D':
      return 'image';
    case 'samplerCube':
      return 'cubeImage';
    default:
      return 'stops';
  }
}

/** The library's structs that travel along ribbons. */
export interface RibbonStructs {
  readonly lit: StructType;
  readonly field: StructType;
}

export function irType(type: RibbonType, { lit, field }: RibbonStructs): Type {
  const types: Record<RibbonType, Type> = {
    number: FLOAT,
    vec2: VEC2,
    vec3: VEC3,
    colour: VEC3,
    vec4: VEC4,
    light: lit,
    field,
    stops: { kind: 'array', element: VEC4, length: 8 },
    image: { kind: 'sampler', name: 'sampler2D' },
    cubeImage: { kind: 'sampler', name: 'samplerCube' },
  };
  return types[type];
}

/** How many threads a ribbon of this type shows: its components. */
export function threadCount(type: RibbonType): number {
  return { number: 1, vec2: 2, vec3: 3, colour: 3, vec4: 4, light: 3, field: 2, stops: 4, image: 4, cubeImage: 4 }[type];
}

/** A conversion that happens by itself, and shows on the ribbon. */
export interface Conversion {
  /** How much is lost or made up; the least costly overload wins. */
  readonly cost: number;
  /** What the ribbon shows; empty when nothing changes. */
  readonly label: string;
  readonly build: (value: Expression, functions: ConversionFunctions) => Expression;
}

/** Library functions that conversions call. */
export interface ConversionFunctions {
  readonly luminance: (colour: Expression) => Expression;
  readonly total: (lit: Expression) => Expression;
  readonly emitted: (colour: Expression) => Expression;
  /** A distance without a region. */
  readonly unnamed: (distance: Expression) => Expression;
}

const SAME: Conversion = { cost: 0, label: '', build: (value) => value };
/** Other words for the same numbers. */
const RENAMED: Conversion = { ...SAME, cost: 0.5 };
const spread = (size: 2 | 3 | 4): Conversion => ({
  cost: 1,
  label: 'spread',
  build: (value) => construct(size === 2 ? VEC2 : size === 3 ? VEC3 : VEC4, [value]),
});
const shorten = (size: 2 | 3, label: string): Conversion => ({
  cost: 5,
  label,
  build: (value) => swizzle(value, size === 2 ? [0, 1] : [0, 1, 2]),
});
const pad = (type: Type, last: number, label: string): Conversion => ({
  cost: 3,
  label,
  build: (value) => construct(type, [value, float(last)]),
});
const luminance: Conversion = { cost: 8, label: 'luminance', build: (value, { luminance }) => luminance(value) };
const total: Conversion = { cost: 10, label: 'sum of terms', build: (value, { total }) => total(value) };
const emission: Conversion = { cost: 4, label: 'emission', build: (value, { emitted }) => emitted(value) };

/** Of the region that is called 0. */
const unnamed: Conversion = { cost: 2, label: '', build: (value, { unnamed }) => unnamed(value) };
const distance: Conversion = { cost: 3, label: 'distance', build: (value) => member(value, 'distance') };

const CONVERSIONS: Readonly<Record<RibbonType, Partial<Record<RibbonType, Conversion>>>> = {
  number: {
    vec2: spread(2),
    vec3: spread(3),
    colour: spread(3),
    vec4: spread(4),
    field: unnamed,
    light: { cost: 6, label: 'emission', build: (value, { emitted }) => emitted(construct(VEC3, [value])) },
  },
  vec2: {
    vec3: pad(VEC3, 0, 'z is 0'),
    colour: pad(VEC3, 0, 'blue is 0'),
    light: { cost: 8, label: 'emission', build: (value, { emitted }) => emitted(construct(VEC3, [value, float(0)])) },
  },
  vec3: { colour: RENAMED, vec2: shorten(2, 'x and y'), vec4: pad(VEC4, 1, 'w is 1'), light: emission },
  colour: { vec3: RENAMED, vec2: shorten(2, 'red and green'), vec4: pad(VEC4, 1, 'alpha is 1'), light: emission, number: luminance },
  vec4: {
    vec3: shorten(3, 'x, y and z'),
    colour: shorten(3, 'without alpha'),
    vec2: shorten(2, 'x and y'),
    light: { cost: 7, label: 'emission', build: (value, { emitted }) => emitted(swizzle(value, [0, 1, 2])) },
  },
  light: {
    colour: total,
    vec3: total,
    number: { cost: 14, label: 'luminance', build: (value, functions) => functions.luminance(functions.total(value)) },
    vec4: { cost: 12, label: 'sum of terms', build: (value, { total }) => construct(VEC4, [total(value), float(1)]) },
  },
  field: {
    number: distance,
    light: { cost: 9, label: 'emission', build: (value, { emitted }) => emitted(construct(VEC3, [member(value, 'distance')])) },
  },
  stops: {},
  image: {},
  cubeImage: {},
};

export function conversion(from: RibbonType, to: RibbonType): Conversion | undefined {
  return from === to ? SAME : CONVERSIONS[from][to];
}

/** Why two ends do not fit, and what to put between. */
export function misfitMessage(from: RibbonType, to: RibbonType): string {
  const words: Record<RibbonType, string> = {
    number: 'a number',
    vec2: 'a pair of numbers',
    vec3: 'a vector',
    vec4: 'four numbers',
    colour: 'a colour',
    light: 'light',
    field: 'a field',
    stops: 'gradient stops',
    image: 'an image',
    cubeImage: 'a cube image',
  };
  const mend = to === 'number' ? ' Put Split or Length between.' : from === 'vec2' ? ' Put Split and Combine between.' : '';
  if (to === 'image' || to === 'cubeImage') return 'An image is chosen on the node; nothing runs into it.';
  return to === 'stops'
    ? `This gives ${words[from]}, but a gradient is wanted: a parameter that is one, or Gradient of colours.`
    : `This gives ${words[from]}, but ${words[to]} is wanted.${mend}`;
}

/** A struct outlet or the whole value. */
export function outletValue(value: Expression, outlet: string): Expression {
  return outlet === 'result' && !isTakenApart(value.type) ? value : member(value, outlet);
}

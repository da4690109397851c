import { BUILTIN_FUNCTIONS } from '../../ir/builtins/table';
import type { BuiltinHelp } from '../builtin-help';
import { irNameOf, overloadsOf, WGSL_BUILTIN_NAMES } from './wgsl-calls';
import { wgslTypeName } from './wgsl-types';

/** What is said of functions that are no function of the IR by themselves. */
const MADE: Readonly<Record<string, readonly [signature: string, help: string]>> = {
  select: [
    'select(no: T, yes: T, condition: bool) -> T',
    'The second where the condition holds, else the first; for each component by itself where there are as many conditions.',
  ],
  saturate: ['saturate(x: T) -> T', 'Kept between 0 and 1.'],
  fma: ['fma(a: T, b: T, c: T) -> T', 'a · b + c.'],
  modf: [
    'modf(x: T) -> { fract: T, whole: T }',
    'What stands behind and before the point: modf(x).fract, modf(x).whole. Both have the sign of the number.',
  ],
  bitcast: ['bitcast<T>(x) -> T', 'The bits of a value as another type of as many bits.'],
  textureSample: [
    'textureSample(image, sampler, at) -> vec4f',
    'An image at a place (0, 0 is its top left corner), its size chosen by how densely neighbouring pixels lie.',
  ],
  textureSampleLevel: [
    'textureSampleLevel(image, sampler, at, level: f32) -> vec4f',
    'An image at a place, in a size of its own: 0 is the finest.',
  ],
  textureSampleBias: [
    'textureSampleBias(image, sampler, at, bias: f32) -> vec4f',
    'An image at a place, the choice of its size moved by a number.',
  ],
  textureSampleGrad: [
    'textureSampleGrad(image, sampler, at, ddx, ddy) -> vec4f',
    'An image at a place, its size chosen by the differences given.',
  ],
  textureLoad: ['textureLoad(image, at: vec2i, level: i32) -> vec4f', 'One texel by its column and row, unfiltered.'],
  textureDimensions: ['textureDimensions(image, level: i32) -> vec2u', 'Width and height of an image in texels, at a size.'],
};

/** What can be read about a built-in function of WGSL. */
export function wgslBuiltinHelp(name: string): BuiltinHelp | undefined {
  const source = 'WebGPU Shading Language, W3C';
  const made = Object.hasOwn(MADE, name) ? MADE[name] : undefined;
  if (made) return { name, signatures: [made[0]], help: made[1], source };
  const known = BUILTIN_FUNCTIONS.get(irNameOf(name) ?? '');
  if (!known || !WGSL_BUILTIN_NAMES.includes(name)) return undefined;
  const signatures = overloadsOf(name).map(
    ({ result, parameters }) => `${name}(${parameters.map((each) => wgslTypeName(each)).join(', ')}) -> ${wgslTypeName(result)}`,
  );
  return { name, signatures, help: known.help, source };
}

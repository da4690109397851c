import type { BuiltinSection } from './builtin';
import { floatOfHalf, halfOfFloat } from './half';

const clamp = (x: number, low: number, high: number): number => Math.min(Math.max(x, low), high);
// Halves may go either way; to even, as `round` does here.
const round = (x: number): number => (Math.abs(x % 1) === 0.5 ? 2 * Math.round(x / 2) : Math.round(x));

const pack =
  (of: (x: number) => number) =>
  ([x = 0, y = 0]: readonly number[] = []): number[] => [((of(x) & 0xffff) | (of(y) << 16)) >>> 0];
const unpack =
  (of: (bits: number) => number) =>
  ([bits = 0]: readonly number[] = []): number[] => [of(bits & 0xffff), of(bits >>> 16)];

/** Floating-point pack and unpack functions, GLSL ES 3.00 section 8.4. */
export const PACKING: BuiltinSection = {
  packSnorm2x16: {
    signatures: ['uint(vec2)'],
    help: 'Two numbers from −1 to 1 in 16 bits each; the first lies in the lower ones.',
    evaluate: pack((x) => round(clamp(x, -1, 1) * 32767)),
  },
  unpackSnorm2x16: {
    signatures: ['vec2(uint)'],
    help: 'Two numbers from −1 to 1 out of 16 bits each.',
    evaluate: unpack((bits) => clamp(((bits << 16) >> 16) / 32767, -1, 1)),
  },
  packUnorm2x16: {
    signatures: ['uint(vec2)'],
    help: 'Two numbers from 0 to 1 in 16 bits each; the first lies in the lower ones.',
    evaluate: pack((x) => round(clamp(x, 0, 1) * 65535)),
  },
  unpackUnorm2x16: {
    signatures: ['vec2(uint)'],
    help: 'Two numbers from 0 to 1 out of 16 bits each.',
    evaluate: unpack((bits) => bits / 65535),
  },
  packHalf2x16: {
    signatures: ['uint(vec2)'],
    help: 'Two numbers as 16-bit floats; the first lies in the lower bits.',
    evaluate: pack(halfOfFloat),
  },
  unpackHalf2x16: { signatures: ['vec2(uint)'], help: 'Two numbers out of 16-bit floats.', evaluate: unpack(floatOfHalf) },
};

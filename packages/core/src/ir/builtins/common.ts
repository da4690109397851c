import { byOne, byThree, byTwo, type BuiltinSection } from './builtin';

// Halves may go either way in `round`; to even, as most devices do.
const toEven = (x: number): number => (Math.abs(x % 1) === 0.5 ? 2 * Math.round(x / 2) : Math.round(x));

function smoothstep(low: number, high: number, x: number): number {
  const t = Math.min(Math.max((x - low) / (high - low), 0), 1);
  return t * t * (3 - 2 * t);
}

const bits = new DataView(new ArrayBuffer(4));

function floatBits(value: number): number {
  bits.setFloat32(0, value);
  return bits.getUint32(0);
}

function fromBits(value: number): number {
  bits.setUint32(0, value);
  return bits.getFloat32(0);
}

/** Common functions, GLSL ES 3.00 section 8.3. */
export const COMMON: BuiltinSection = {
  abs: { signatures: ['F(F)', 'I(I)'], help: 'The number without its sign.', evaluate: byOne(Math.abs) },
  sign: { signatures: ['F(F)', 'I(I)'], help: '1, 0 or −1.', evaluate: byOne(Math.sign) },
  floor: { signatures: ['F(F)'], help: 'The next whole number downwards.', evaluate: byOne(Math.floor) },
  ceil: { signatures: ['F(F)'], help: 'The next whole number upwards.', evaluate: byOne(Math.ceil) },
  round: { signatures: ['F(F)'], help: 'The nearest whole number; halves go either way.', evaluate: byOne(toEven) },
  roundEven: { signatures: ['F(F)'], help: 'The nearest whole number; halves go to the even one.', evaluate: byOne(toEven) },
  trunc: { signatures: ['F(F)'], help: 'The whole part, towards 0.', evaluate: byOne(Math.trunc) },
  fract: {
    signatures: ['F(F)'],
    help: 'What is above the next whole number downwards: x − floor(x).',
    evaluate: byOne((x) => x - Math.floor(x)),
  },
  mod: {
    signatures: ['F(F,F)', 'F(F,float)'],
    help: 'The rest of a division, with the sign of the second: x − y·floor(x/y).',
    evaluate: byTwo((x, y) => x - y * Math.floor(x / y)),
  },
  modf: {
    signatures: ['F(F,F)'],
    help: 'What stands behind the point; what stands before it is written to the second. Both have the sign of the number.',
    writes: 1,
  },
  min: {
    signatures: ['F(F,F)', 'F(F,float)', 'I(I,I)', 'I(I,int)', 'U(U,U)', 'U(U,uint)'],
    help: 'The smaller one.',
    evaluate: byTwo(Math.min),
    keepsOne: 2,
  },
  max: {
    signatures: ['F(F,F)', 'F(F,float)', 'I(I,I)', 'I(I,int)', 'U(U,U)', 'U(U,uint)'],
    help: 'The larger one.',
    evaluate: byTwo(Math.max),
    keepsOne: 2,
  },
  clamp: {
    signatures: ['F(F,F,F)', 'F(F,float,float)', 'I(I,I,I)', 'I(I,int,int)', 'U(U,U,U)', 'U(U,uint,uint)'],
    help: 'Kept between the second and the third.',
    evaluate: byThree((x, low, high) => Math.min(Math.max(x, low), high)),
  },
  mix: {
    signatures: ['F(F,F,F)', 'F(F,F,float)', 'F(F,F,B)'],
    help: 'From the first (at 0) to the second (at 1): x·(1 − a) + y·a.',
    evaluate: byThree((x, y, a) => x * (1 - a) + y * a),
    keepsOne: 2,
  },
  step: {
    signatures: ['F(F,F)', 'F(float,F)'],
    help: '0 below the edge (first), 1 from it on.',
    evaluate: byTwo((edge, x) => (x < edge ? 0 : 1)),
  },
  smoothstep: {
    signatures: ['F(F,F,F)', 'F(float,float,F)'],
    help: '0 below the first, 1 above the second, a smooth curve between.',
    evaluate: byThree(smoothstep),
  },
  isnan: { signatures: ['B(F)'], help: 'Whether it is no number.', evaluate: byOne((x) => Number(Number.isNaN(x))) },
  isinf: { signatures: ['B(F)'], help: 'Whether it is infinite.', evaluate: byOne((x) => Number(Math.abs(x) === Infinity)) },
  floatBitsToUint: { signatures: ['U(F)'], help: 'The bits of a float as a whole number.', evaluate: byOne(floatBits) },
  uintBitsToFloat: { signatures: ['F(U)'], help: 'The float that has these bits.', evaluate: byOne(fromBits) },
  floatBitsToInt: {
    signatures: ['I(F)'],
    help: 'The bits of a float as a whole number with a sign.',
    evaluate: byOne((x) => floatBits(x) | 0),
  },
  intBitsToFloat: { signatures: ['F(I)'], help: 'The float that has these bits.', evaluate: byOne((x) => fromBits(x >>> 0)) },
};

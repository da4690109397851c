const { fround } = Math;

type Numbers = readonly number[];

const bits = new DataView(new ArrayBuffer(4));

function floatBits(value: number): number {
  bits.setFloat32(0, value);
  return bits.getUint32(0);
}

function fromBits(value: number): number {
  bits.setUint32(0, value);
  return bits.getFloat32(0);
}

const ONE: Readonly<Record<string, (x: number) => number>> = {
  radians: (x) => (x * Math.PI) / 180,
  degrees: (x) => (x * 180) / Math.PI,
  sin: Math.sin,
  cos: Math.cos,
  tan: Math.tan,
  asin: Math.asin,
  acos: Math.acos,
  sinh: Math.sinh,
  cosh: Math.cosh,
  tanh: Math.tanh,
  asinh: Math.asinh,
  acosh: Math.acosh,
  atanh: Math.atanh,
  exp: Math.exp,
  log: Math.log,
  exp2: (x) => 2 ** x,
  log2: Math.log2,
  sqrt: Math.sqrt,
  inversesqrt: (x) => 1 / Math.sqrt(x),
  abs: Math.abs,
  sign: Math.sign,
  floor: Math.floor,
  ceil: Math.ceil,
  trunc: Math.trunc,
  fract: (x) => x - Math.floor(x),
  // Halves may go either way (GLSL ES 3.00 section 8.3); to even, as most devices do.
  round: (x) => (Math.abs(x % 1) === 0.5 ? 2 * Math.round(x / 2) : Math.round(x)),
  roundEven: (x) => (Math.abs(x % 1) === 0.5 ? 2 * Math.round(x / 2) : Math.round(x)),
  isnan: (x) => Number(Number.isNaN(x)),
  isinf: (x) => Number(Math.abs(x) === Infinity),
  not: (x) => Number(!x),
  floatBitsToUint: floatBits,
  floatBitsToInt: (x) => floatBits(x) | 0,
  uintBitsToFloat: fromBits,
  intBitsToFloat: (x) => fromBits(x >>> 0),
  // One value has no neighbours to differ from.
  dFdx: () => 0,
  dFdy: () => 0,
  fwidth: () => 0,
};

const TWO: Readonly<Record<string, (x: number, y: number) => number>> = {
  pow: (x, y) => x ** y,
  mod: (x, y) => x - y * Math.floor(x / y),
  min: Math.min,
  max: Math.max,
  step: (edge, x) => (x < edge ? 0 : 1),
  lessThan: (x, y) => Number(x < y),
  lessThanEqual: (x, y) => Number(x <= y),
  greaterThan: (x, y) => Number(x > y),
  greaterThanEqual: (x, y) => Number(x >= y),
  equal: (x, y) => Number(x === y),
  notEqual: (x, y) => Number(x !== y),
};

const THREE: Readonly<Record<string, (x: number, y: number, z: number) => number>> = {
  clamp: (x, low, high) => Math.min(Math.max(x, low), high),
  smoothstep: (low, high, x) => {
    const t = Math.min(Math.max((x - low) / (high - low), 0), 1);
    return t * t * (3 - 2 * t);
  },
};

const dot = (a: Numbers, b: Numbers): number => a.reduce((sum, each, index) => fround(sum + fround(each * (b[index] ?? 0))), 0);
const length = (a: Numbers): number => fround(Math.sqrt(dot(a, a)));
const scale = (a: Numbers, factor: number): number[] => a.map((each) => fround(each * factor));
const subtract = (a: Numbers, b: Numbers): number[] => a.map((each, index) => fround(each - (b[index] ?? 0)));

const WHOLE: Readonly<Record<string, (...args: Numbers[]) => number[]>> = {
  length: (a = []) => [length(a)],
  distance: (a = [], b = []) => [length(subtract(a, b))],
  dot: (a = [], b = []) => [dot(a, b)],
  cross: ([ax = 0, ay = 0, az = 0] = [], [bx = 0, by = 0, bz = 0] = []) => [ay * bz - az * by, az * bx - ax * bz, ax * by - ay * bx],
  normalize: (a = []) => scale(a, 1 / length(a)),
  faceforward: (n = [], i = [], reference = []) => (dot(reference, i) < 0 ? [...n] : scale(n, -1)),
  reflect: (i = [], n = []) => subtract(i, scale(n, 2 * dot(n, i))),
  refract: (i = [], n = [], [eta = 1] = []) => {
    const cosine = dot(n, i);
    const k = 1 - eta * eta * (1 - cosine * cosine);
    return k < 0 ? i.map(() => 0) : subtract(scale(i, eta), scale(n, eta * cosine + Math.sqrt(k)));
  },
  any: (a = []) => [Number(a.some(Boolean))],
  all: (a = []) => [Number(a.every(Boolean))],
  transpose: (m = []) => transpose(m),
};

function transpose(matrix: Numbers): number[] {
  const size = Math.sqrt(matrix.length);
  return matrix.map((_, index) => matrix[(index % size) * size + Math.floor(index / size)] ?? 0);
}

/**
 * A built-in function on known values, component by component where GLSL says so.
 *
 * @param isFloat whether the result is rounded to 32-bit float
 * @returns undefined for what needs a device: textures, and matrix functions nobody evaluates yet
 */
export function evaluateBuiltin(name: string, args: readonly Numbers[], isFloat: boolean): number[] | undefined {
  const raw = evaluateRaw(name, args);
  return isFloat ? raw?.map(fround) : raw;
}

function evaluateRaw(name: string, args: readonly Numbers[]): number[] | undefined {
  const [a = [], b = [], c = []] = args;
  const whole = WHOLE[name];
  if (whole) return whole(...args);
  const size = Math.max(a.length, b.length, c.length);
  const at = (list: Numbers, index: number): number => (list.length === 1 ? list[0] : list[index]) ?? 0;
  const each = (work: (index: number) => number): number[] => Array.from({ length: size }, (_, index) => work(index));
  if (name === 'atan') return each((index) => (args.length === 2 ? Math.atan2(at(a, index), at(b, index)) : Math.atan(at(a, index))));
  if (name === 'mix') return each((index) => at(a, index) * (1 - at(c, index)) + at(b, index) * at(c, index));
  const one = ONE[name];
  if (one) return each((index) => one(at(a, index)));
  const two = TWO[name];
  if (two) return each((index) => two(at(a, index), at(b, index)));
  const three = THREE[name];
  return three && each((index) => three(at(a, index), at(b, index), at(c, index)));
}

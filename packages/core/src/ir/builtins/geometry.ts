import type { BuiltinSection, Numbers } from './builtin';

const { fround } = Math;
const dot = (a: Numbers, b: Numbers): number => a.reduce((sum, each, index) => fround(sum + fround(each * (b[index] ?? 0))), 0);
const length = (a: Numbers): number => fround(Math.sqrt(dot(a, a)));
const scale = (a: Numbers, factor: number): number[] => a.map((each) => fround(each * factor));
const subtract = (a: Numbers, b: Numbers): number[] => a.map((each, index) => fround(each - (b[index] ?? 0)));

function refract(i: Numbers = [], n: Numbers = [], [eta = 1]: Numbers = []): number[] {
  const cosine = dot(n, i);
  const k = 1 - eta * eta * (1 - cosine * cosine);
  return k < 0 ? i.map(() => 0) : subtract(scale(i, eta), scale(n, eta * cosine + Math.sqrt(k)));
}

/** Geometric functions, GLSL ES 3.00 section 8.5. */
export const GEOMETRY: BuiltinSection = {
  length: { signatures: ['float(F)'], help: 'How long a vector is.', evaluate: (a = []) => [length(a)] },
  distance: { signatures: ['float(F,F)'], help: 'How far two points are apart.', evaluate: (a = [], b = []) => [length(subtract(a, b))] },
  dot: {
    signatures: ['float(F,F)'],
    help: 'The dot product: for unit vectors the cosine of the angle between.',
    evaluate: (a = [], b = []) => [dot(a, b)],
  },
  cross: {
    signatures: ['vec3(vec3,vec3)'],
    help: 'The vector at right angles to both.',
    evaluate: ([ax = 0, ay = 0, az = 0] = [], [bx = 0, by = 0, bz = 0] = []) => [ay * bz - az * by, az * bx - ax * bz, ax * by - ay * bx],
  },
  normalize: {
    signatures: ['F(F)'],
    help: 'The same direction, 1 long. Not defined for a vector of length 0.',
    evaluate: (a = []) => scale(a, 1 / length(a)),
  },
  faceforward: {
    signatures: ['F(F,F,F)'],
    help: 'The first, turned round if the third and the second point the same way.',
    evaluate: (n = [], i = [], reference = []) => (dot(reference, i) < 0 ? [...n] : scale(n, -1)),
  },
  reflect: {
    signatures: ['F(F,F)'],
    help: 'A direction that travels towards the surface, mirrored at its unit normal: I − 2·dot(N, I)·N.',
    evaluate: (i = [], n = []) => subtract(i, scale(n, 2 * dot(n, i))),
  },
  refract: {
    signatures: ['F(F,F,float)'],
    help: 'A unit direction that travels into the surface, bent by the ratio of indices of refraction; 0 where all is reflected.',
    evaluate: refract,
  },
};

import { byOne, byTwo, type BuiltinSection } from './builtin';

/** Angle and trigonometry functions, GLSL ES 3.00 section 8.1. */
export const ANGLES: BuiltinSection = {
  radians: { signatures: ['F(F)'], help: 'Degrees as radians.', evaluate: byOne((x) => (x * Math.PI) / 180) },
  degrees: { signatures: ['F(F)'], help: 'Radians as degrees.', evaluate: byOne((x) => (x * 180) / Math.PI) },
  sin: { signatures: ['F(F)'], help: 'The sine of an angle in radians.', evaluate: byOne(Math.sin) },
  cos: { signatures: ['F(F)'], help: 'The cosine of an angle in radians.', evaluate: byOne(Math.cos) },
  tan: { signatures: ['F(F)'], help: 'The tangent of an angle in radians.', evaluate: byOne(Math.tan) },
  asin: { signatures: ['F(F)'], help: 'The angle whose sine this is, −π/2 to π/2. Not defined beyond −1…1.', evaluate: byOne(Math.asin) },
  acos: { signatures: ['F(F)'], help: 'The angle whose cosine this is, 0 to π. Not defined beyond −1…1.', evaluate: byOne(Math.acos) },
  atan: {
    signatures: ['F(F)', 'F(F,F)'],
    help: 'The angle whose tangent this is; with two numbers, the angle of the direction (x = second, y = first).',
    evaluate: (y, x) => (x ? byTwo(Math.atan2)(y, x) : byOne(Math.atan)(y)),
  },
  sinh: { signatures: ['F(F)'], help: 'The hyperbolic sine.', evaluate: byOne(Math.sinh) },
  cosh: { signatures: ['F(F)'], help: 'The hyperbolic cosine.', evaluate: byOne(Math.cosh) },
  tanh: { signatures: ['F(F)'], help: 'The hyperbolic tangent.', evaluate: byOne(Math.tanh) },
  asinh: { signatures: ['F(F)'], help: 'The number whose hyperbolic sine this is.', evaluate: byOne(Math.asinh) },
  acosh: { signatures: ['F(F)'], help: 'The number whose hyperbolic cosine this is. Not defined below 1.', evaluate: byOne(Math.acosh) },
  atanh: {
    signatures: ['F(F)'],
    help: 'The number whose hyperbolic tangent this is. Not defined beyond −1…1.',
    evaluate: byOne(Math.atanh),
  },
};

import { byOne, byTwo, type BuiltinSection } from './builtin';

/** Exponential functions, GLSL ES 3.00 section 8.2. */
export const EXPONENTIALS: BuiltinSection = {
  pow: {
    signatures: ['F(F,F)'],
    help: 'The first to the power of the second. Not defined for negative numbers.',
    evaluate: byTwo((x, y) => x ** y),
  },
  exp: { signatures: ['F(F)'], help: 'e to the power of this.', evaluate: byOne(Math.exp) },
  log: { signatures: ['F(F)'], help: 'The natural logarithm. Not defined at or below 0.', evaluate: byOne(Math.log) },
  exp2: { signatures: ['F(F)'], help: '2 to the power of this.', evaluate: byOne((x) => 2 ** x) },
  log2: { signatures: ['F(F)'], help: 'The logarithm to the base 2. Not defined at or below 0.', evaluate: byOne(Math.log2) },
  sqrt: { signatures: ['F(F)'], help: 'The square root. Not defined below 0.', evaluate: byOne(Math.sqrt) },
  inversesqrt: { signatures: ['F(F)'], help: '1 / sqrt(x). Not defined at or below 0.', evaluate: byOne((x) => 1 / Math.sqrt(x)) },
};

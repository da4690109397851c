import { byOne, byTwo, type BuiltinSection } from './builtin';

/** Vector relational functions, GLSL ES 3.00 section 8.7. */
export const RELATIONS: BuiltinSection = {
  any: {
    signatures: ['bool(B)'],
    help: 'Whether any component is true.',
    evaluate: (a = []) => [Number(a.some(Boolean))],
    vectorsOnly: true,
  },
  all: {
    signatures: ['bool(B)'],
    help: 'Whether all components are true.',
    evaluate: (a = []) => [Number(a.every(Boolean))],
    vectorsOnly: true,
  },
  not: { signatures: ['B(B)'], help: 'Each component turned round.', evaluate: byOne((x) => Number(!x)), vectorsOnly: true },
  lessThan: {
    signatures: ['B(F,F)', 'B(I,I)', 'B(U,U)'],
    help: 'Component by component: whether the first is smaller.',
    evaluate: byTwo((x, y) => Number(x < y)),
    vectorsOnly: true,
  },
  lessThanEqual: {
    signatures: ['B(F,F)', 'B(I,I)', 'B(U,U)'],
    help: 'Component by component: whether the first is not larger.',
    evaluate: byTwo((x, y) => Number(x <= y)),
    vectorsOnly: true,
  },
  greaterThan: {
    signatures: ['B(F,F)', 'B(I,I)', 'B(U,U)'],
    help: 'Component by component: whether the first is larger.',
    evaluate: byTwo((x, y) => Number(x > y)),
    vectorsOnly: true,
  },
  greaterThanEqual: {
    signatures: ['B(F,F)', 'B(I,I)', 'B(U,U)'],
    help: 'Component by component: whether the first is not smaller.',
    evaluate: byTwo((x, y) => Number(x >= y)),
    vectorsOnly: true,
  },
  equal: {
    signatures: ['B(F,F)', 'B(I,I)', 'B(U,U)', 'B(B,B)'],
    help: 'Component by component: whether both are equal.',
    evaluate: byTwo((x, y) => Number(x === y)),
    vectorsOnly: true,
  },
  notEqual: {
    signatures: ['B(F,F)', 'B(I,I)', 'B(U,U)', 'B(B,B)'],
    help: 'Component by component: whether they differ.',
    evaluate: byTwo((x, y) => Number(x !== y)),
    vectorsOnly: true,
  },
};

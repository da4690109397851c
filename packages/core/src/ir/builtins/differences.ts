import { byOne, type BuiltinSection } from './builtin';

/** Fragment processing functions, GLSL ES 3.00 section 8.9. One value has no neighbours to differ from: evaluated, all are 0. */
export const DIFFERENCES: BuiltinSection = {
  dFdx: {
    signatures: ['F(F)'],
    help: 'The difference to the neighbouring pixel on the right. 0 at the vertices.',
    evaluate: byOne(() => 0),
    neighbours: 'difference',
  },
  dFdy: {
    signatures: ['F(F)'],
    help: 'The difference to the neighbouring pixel below; in a whole program, as the standard has it, to the one above. 0 at the vertices.',
    evaluate: byOne(() => 0),
    neighbours: 'difference',
  },
  fwidth: {
    signatures: ['F(F)'],
    help: 'abs(dFdx(x)) + abs(dFdy(x)): how much it changes over a pixel.',
    evaluate: byOne(() => 0),
    neighbours: 'difference',
  },
};

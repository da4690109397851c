import { COUNTED_STEPS, loopsCountedIn } from '../compile/code/counted-loops';
import { readCode } from '../compile/code/read-code';
import type { Check } from './check';

/** A loop of the code that may be broken off, since nothing in the text says how often it goes round. */
export const countedLoops: Check = {
  id: 'counted-loops',
  find: ({ material: { code }, catalogue }) => {
    if (!code) return [];
    return loopsCountedIn(code, readCode(code, catalogue)).map(({ line, path }, index) => ({
      place: `${path}/loop ${index + 1}`,
      title: `Line ${line}${path === 'vertices' ? ' of the vertices' : ''}: nothing says how often this loop goes round.`,
      explanation: `All such loops of one pixel have ${COUNTED_STEPS} steps. Where they run out they are broken off, and the picture shows black and white stripes. A loop with the most turns in its head, as in “for (int i = 0; i < 64; i++)”, which is left by “break”, is not counted.`,
    }));
  },
};

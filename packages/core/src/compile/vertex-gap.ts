import { global, swizzle } from '../ir/build';
import type { Expression } from '../ir/ir';
import { VEC4 } from '../ir/types';

/** How far apart vertices lie in UV, among what vertices of a shape bring along. */
export const VERTEX_GAP: Expression = swizzle(global('meshBend', VEC4), [3]);

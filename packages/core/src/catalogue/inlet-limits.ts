import type { InletSpec } from './kind';

/**
 * Where an inlet's value may lie beyond its range, which is then only what one usually wants: a size, a strength or an index of
 * refraction may be larger; a fraction or a count may not.
 */
export function openSides({ meaning, low }: Pick<InletSpec, 'meaning' | 'low'>): 'above' | 'both' | undefined {
  if (meaning === 'ior') return 'above';
  if (meaning !== 'number') return undefined;
  return low !== undefined && low >= 0 ? 'above' : 'both';
}

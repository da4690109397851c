import type { FieldBox } from './field-box';
import type { FieldSampler } from './field-sampler';

/** Halvings of the box: its edges are found to an eighth. */
const LEVELS = 3;

/**
 * The smallest box, of eighths of the given one, outside of which a field has no surface; nothing where it has none at all. What
 * cannot be computed counts as surface.
 *
 * @param slope of the field, at most
 */
export function occupiedBounds(sampler: FieldSampler, bounds: FieldBox, slope: number): FieldBox | undefined {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  const visit = (from: readonly number[], to: readonly number[], level: number): void => {
    const middle = from.map((each, axis) => (each + (to[axis] ?? 0)) / 2);
    const half = Math.hypot(...middle.map((each, axis) => each - (from[axis] ?? 0)));
    if (Math.abs(sampler.at(middle).distance) > half * slope) return;
    // What lies within what is known to be occupied changes nothing.
    if (from.every((each, axis) => each >= (low[axis] ?? 0)) && to.every((each, axis) => each <= (high[axis] ?? 0))) return;
    if (level === 0) {
      from.forEach((each, axis) => (low[axis] = Math.min(low[axis] ?? 0, each)));
      to.forEach((each, axis) => (high[axis] = Math.max(high[axis] ?? 0, each)));
      return;
    }
    for (let eighth = 0; eighth < 8; eighth++) {
      const upper = [0, 1, 2].map((axis) => ((eighth >> axis) & 1) === 1);
      visit(
        from.map((each, axis) => (upper[axis] ? (middle[axis] ?? 0) : each)),
        to.map((each, axis) => (upper[axis] ? each : (middle[axis] ?? 0))),
        level - 1,
      );
    }
  };
  visit(bounds.low, bounds.high, LEVELS);
  return low.every(Number.isFinite) ? { low, high } : undefined;
}

import type { FieldBox } from './field-box';
import type { FieldSampler } from './field-sampler';

const PLACES = 256;
/** Where asking takes its time. */
const FEW_PLACES = 32;
/** Beyond this a field is no distance, and steps would be too short to arrive. */
export const STEEPEST = 100;

/**
 * The steepest slope of a field that is found at places scattered through its bounds, half of them brought near its surface. 1 of a
 * true distance; steps along a line of sight have to be so many times shorter where it is more.
 */
export function measuredSlope(sampler: FieldSampler, { low, high }: FieldBox): number {
  const size = high.map((each, axis) => each - (low[axis] ?? 0));
  const reach = Math.max(Math.hypot(...size) * 1e-4, 1e-4);
  const places = sampler.isQuick ? PLACES : FEW_PLACES;
  let steepest = 0;
  const look = (place: readonly number[]): readonly [slope: readonly number[], steep: number] => {
    const slope = sampler.slope(place, reach);
    const steep = finiteLength(slope);
    if (steep > steepest) steepest = Math.max(steepest, steepOf(steep, finiteLength(sampler.slope(place, reach / 2))));
    return [slope, steep];
  };
  for (let index = 0; index < places; index++) {
    // Additive recurrence of the plastic number's three-dimensional kin: even, and without a period.
    const place = [0.8191725134, 0.6710436067, 0.5497004779].map(
      (pace, axis) => (low[axis] ?? 0) + (((index + 1) * pace) % 1) * (size[axis] ?? 0),
    );
    const [slope, steep] = look(place);
    if (index % 2 === 0) continue;
    const { distance } = sampler.at(place);
    if (steep < 1e-6 || !Number.isFinite(distance)) continue;
    look(place.map((each, axis) => each - (distance * (slope[axis] ?? 0)) / (steep * steep)));
  }
  return steepest;
}

/** A field that jumps between two places is the steeper the nearer they are: that is no slope, and no shorter step would help. */
function steepOf(steep: number, nearer: number): number {
  return nearer > 1.5 * steep ? 0 : Math.min(steep, nearer);
}

function finiteLength(vector: readonly number[]): number {
  const length = Math.hypot(...vector);
  return Number.isFinite(length) ? length : 0;
}

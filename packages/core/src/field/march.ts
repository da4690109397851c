import type { FieldBox, SightLine } from './field-box';
import type { FieldSampler } from './field-sampler';

const MOST = 256;

/** Where a ray of object space first meets a field within its bounds: the distance along it, in lengths of its direction, and the part. */
export function marchedField(
  sampler: FieldSampler,
  { low, high }: FieldBox,
  { origin, direction }: SightLine,
): { readonly distance: number; readonly part: number } | undefined {
  const length = Math.hypot(...direction);
  if (!(length > 0)) return undefined;
  let [near, far] = [0, Infinity];
  for (const axis of [0, 1, 2]) {
    const [from, step] = [origin[axis] ?? 0, direction[axis] ?? 0];
    if (step === 0) continue;
    const ends = [((low[axis] ?? 0) - from) / step, ((high[axis] ?? 0) - from) / step];
    near = Math.max(near, Math.min(...ends));
    far = Math.min(far, Math.max(...ends));
  }
  const at = (along: number): { distance: number; part: number } =>
    sampler.at(origin.map((each, axis) => each + along * (direction[axis] ?? 0)));
  const side = at(near).distance < 0 ? -1 : 1;
  let along = near;
  for (let step = 0; step < MOST && along <= far; step++) {
    const found = at(along);
    const distance = found.distance * side;
    if (distance < 1e-4 * Math.max(1, along * length)) return { distance: along, part: found.part };
    if (Number.isNaN(distance)) return undefined;
    along += distance / length;
  }
  return undefined;
}

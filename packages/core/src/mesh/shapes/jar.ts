import { disc, outlineThrough, turned, type OutlinePoint } from '../lathe';
import type { MeshData } from '../mesh';
import { PatchBuilder } from '../patch';

type Outline = readonly (readonly [radius: number, height: number])[];

/** From the top down: radius and height, as parts of the whole height. */
const LIP: Outline = [
  [0.15, 0.93],
  [0.162, 0.985],
  [0.182, 1],
  [0.2, 0.985],
  [0.198, 0.955],
];
const BODY: Outline = [
  [0.198, 0.955],
  [0.178, 0.915],
  [0.21, 0.85],
  [0.33, 0.74],
  [0.392, 0.58],
  [0.372, 0.38],
  [0.3, 0.18],
  [0.25, 0.06],
  [0.255, 0],
];
const INSIDE: Outline = [
  [0.34, 0.52],
  [0.29, 0.72],
  [0.17, 0.86],
  [0.15, 0.93],
];

/** The loft's salt-glazed jar, thrown on the wheel: a lip, a shoulder, a narrow foot; one sees into its neck. */
export function jar({ height, segments, rings }: { height: number; segments: number; rings: number }): MeshData {
  const builder = new PatchBuilder();
  const standing = ({ radius, height: up, normal }: OutlinePoint): OutlinePoint => ({
    radius: radius * height,
    height: (up - 0.5) * height,
    normal,
  });
  const section = (name: string, points: Outline, rows: number): void => {
    builder.patch(name, segments, rows, (u, v) => turned(standing(outlineThrough(points, v)), u));
  };
  const few = Math.max(3, Math.round(rings / 6));
  section('lip', LIP, few);
  section('body', BODY, rings);
  builder.patch('foot', segments, 2, disc(0.255 * height, -0.5 * height, 'down'));
  // From the bottom up, so that the walls face the axis.
  section('inside', INSIDE, few);
  builder.patch('inside', segments, 1, disc(0.34 * height, 0.02 * height, 'up'));
  return builder.finish({ closed: false });
}

import { outlineThrough, turned } from '../lathe';
import type { MeshData } from '../mesh';
import { PatchBuilder } from '../patch';

/** From the rim of the funnel down to the foot: radius and height, as parts of the whole height. */
const FUNNEL: readonly (readonly [number, number])[] = [
  [0.33, 1],
  [0.3, 0.95],
  [0.2, 0.86],
  [0.1, 0.77],
  [0.075, 0.72],
];
const NECK: readonly (readonly [number, number])[] = [
  [0.075, 0.72],
  [0.072, 0.66],
  [0.085, 0.6],
];
const BODY: readonly (readonly [number, number])[] = [
  [0.085, 0.6],
  [0.2, 0.53],
  [0.34, 0.4],
  [0.38, 0.25],
  [0.34, 0.1],
  [0.27, 0.03],
];
const FOOT: readonly (readonly [number, number])[] = [
  [0.27, 0.03],
  [0.29, 0],
];

/** The loft's lamp-oil filler, turned from thin sheet: a funnel, a narrow neck, a belly, open below. Both sides are seen. */
export function oilFiller({ height, segments, rings }: { height: number; segments: number; rings: number }): MeshData {
  const builder = new PatchBuilder();
  const section = (name: string, points: readonly (readonly [number, number])[]): void => {
    builder.patch(name, segments, rings, (u, v) => {
      const { radius, height: up, normal } = outlineThrough(points, v);
      return turned({ radius: radius * height, height: (up - 0.5) * height, normal }, u);
    });
  };
  section('funnel', FUNNEL);
  section('neck', NECK);
  section('body', BODY);
  section('foot', FOOT);
  return builder.finish({ closed: false });
}

import type { Pixels } from '../image/mips';
import { dataImage, field, normalsOf, opennessOf } from './map-images';
import { cellHash, tilingCells, tilingFractal, tilingNoise } from './tiling-noise';

export const METAL_SIDE = 512;

const ramp = (at: number, from: number, to: number): number => {
  const t = Math.min(Math.max((at - from) / (to - from), 0), 1);
  return t * t * (3 - 2 * t);
};

/** Soot in the seams between the turned pieces, fingers on their bellies: occlusion in red, roughness in green, metallic in blue. */
export function brassPixels(): Pixels {
  const dents = field(METAL_SIDE, (u, v) => 0.5 + 0.3 * tilingFractal(u, v, 6, 6, 4, 7));
  const open = opennessOf(dents, 3);
  return dataImage(METAL_SIDE, (at) => {
    const [u, v] = [((at % METAL_SIDE) + 0.5) / METAL_SIDE, (Math.floor(at / METAL_SIDE) + 0.5) / METAL_SIDE];
    const seam = Math.max(1 - ramp(v, 0, 0.09), ramp(v, 0.91, 1));
    const soot = Math.min(Math.max(seam * (0.75 + 0.5 * tilingFractal(u, v, 9, 4, 4, 23)), 0), 1);
    const turned = 0.05 * tilingNoise(u, v, 2, 160, 3) + 0.03 * tilingNoise(u, v, 3, 60, 13);
    const finger = fingerprints(u, v);
    const patch = 0.07 * tilingFractal(u, v, 4, 4, 4, 31);
    return [(open.values[at] ?? 1) * (1 - 0.6 * soot), 0.3 + turned + patch + 0.16 * finger + 0.38 * soot, 1 - 0.55 * ramp(soot, 0.6, 1)];
  });
}

/** Ovals of fine ridges here and there. */
function fingerprints(u: number, v: number): number {
  const { far, own } = tilingCells(u, v, 4, 3, 47);
  if (own < 0.35) return 0;
  const ridges = 0.5 + 0.5 * Math.sin(far * 150 + 3 * tilingNoise(u, v, 10, 10, 5));
  return (1 - ramp(far, 0.2, 0.36)) * (0.45 + 0.55 * ridges);
}

/** A lacquered float that has been at sea: fine scratches as the normals of its coat. */
export function scratchPixels(): Pixels {
  const values = new Float32Array(METAL_SIDE * METAL_SIDE).fill(1);
  for (let index = 0; index < 64; index++) {
    const random = (salt: number): number => cellHash(index, salt, 83) / 4_294_967_296;
    const turn = random(1) * Math.PI * 2;
    const [dx, dy] = [Math.cos(turn), Math.sin(turn)];
    const steps = Math.round((0.06 + 0.3 * random(4) ** 2) * METAL_SIDE * 2);
    for (let step = 0; step < steps; step++) {
      const fade = Math.sin((step / steps) * Math.PI);
      press(values, random(2) * METAL_SIDE + (dx * step) / 2, random(3) * METAL_SIDE + (dy * step) / 2, (0.3 + 0.7 * random(5)) * fade);
    }
  }
  return normalsOf({ side: METAL_SIDE, values }, 0.004, [1, 1]);
}

/** A dent of about a pixel's width. */
function press(values: Float32Array, x: number, y: number, depth: number): void {
  for (let row = Math.floor(y) - 1; row <= y + 1; row++) {
    for (let column = Math.floor(x) - 1; column <= x + 1; column++) {
      const near = 1 - Math.min(((column - x) ** 2 + (row - y) ** 2) / 2, 1);
      const at = ((row + METAL_SIDE) % METAL_SIDE) * METAL_SIDE + ((column + METAL_SIDE) % METAL_SIDE);
      values[at] = Math.min(values[at] ?? 1, 1 - depth * near);
    }
  }
}

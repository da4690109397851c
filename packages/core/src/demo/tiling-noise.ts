/** Noise over a square that continues on its other side, for images that stand side by side. */

/** A whole number of its own for each cell of a lattice that repeats (pcg, Jarzynski and Olano 2020, JCGT 9(3)). */
export function cellHash(x: number, y: number, seed: number): number {
  let value = (Math.imul(x, 374_761_393) + Math.imul(y, 668_265_263) + Math.imul(seed, 2_246_822_519)) >>> 0;
  value = (Math.imul(value, 747_796_405) + 2_891_336_453) >>> 0;
  value = Math.imul(((value >>> ((value >>> 28) + 4)) ^ value) >>> 0, 277_803_737) >>> 0;
  return ((value >>> 22) ^ value) >>> 0;
}

const wrapped = (at: number, period: number): number => ((at % period) + period) % period;
const smooth = (t: number): number => t * t * t * (t * (t * 6 - 15) + 10);

/** Directions to pull to, enough that none is seen twice. */
const COSINES = Float64Array.from({ length: 256 }, (_, index) => Math.cos((index / 128) * Math.PI));
const SINES = Float64Array.from({ length: 256 }, (_, index) => Math.sin((index / 128) * Math.PI));

function pull(x: number, y: number, seed: number, dx: number, dy: number): number {
  const way = cellHash(x, y, seed) & 255;
  return (COSINES[way] ?? 0) * dx + (SINES[way] ?? 0) * dy;
}

/** −1…1, 0 on average (Perlin 2002, "Improving noise"); `u`, `v` 0…1, with so many cells across and down. */
export function tilingNoise(u: number, v: number, across: number, down: number, seed: number): number {
  const x = u * across;
  const y = v * down;
  const x0 = Math.floor(x);
  const y0 = Math.floor(y);
  const s = x - x0;
  const t = y - y0;
  const left = wrapped(x0, across);
  const right = wrapped(x0 + 1, across);
  const above = wrapped(y0, down);
  const below = wrapped(y0 + 1, down);
  const a = smooth(s);
  const topLeft = pull(left, above, seed, s, t);
  const bottomLeft = pull(left, below, seed, s, t - 1);
  const top = topLeft + (pull(right, above, seed, s - 1, t) - topLeft) * a;
  const bottom = bottomLeft + (pull(right, below, seed, s - 1, t - 1) - bottomLeft) * a;
  return (top + (bottom - top) * smooth(t)) * 1.41;
}

/** Several of them, each twice as fine and half as strong. */
export function tilingFractal(u: number, v: number, across: number, down: number, octaves: number, seed: number): number {
  let [sum, weight, scale] = [0, 1, 1];
  for (let octave = 0; octave < octaves; octave++) {
    sum += tilingNoise(u, v, across * scale, down * scale, seed + octave) * weight;
    weight /= 2;
    scale *= 2;
  }
  return sum / 1.6;
}

/** Nearest of one point in each cell: how far away, in cells, and a number of the point's own, 0…1 (Worley 1996). */
export function tilingCells(u: number, v: number, across: number, down: number, seed: number): { far: number; own: number } {
  const x = u * across;
  const y = v * down;
  const x0 = Math.floor(x);
  const y0 = Math.floor(y);
  let far = 81;
  let own = 0;
  for (let dy = -1; dy <= 1; dy++) {
    for (let dx = -1; dx <= 1; dx++) {
      const hash = cellHash(wrapped(x0 + dx, across), wrapped(y0 + dy, down), seed);
      const awayX = x0 + dx + (hash & 1023) / 1023 - x;
      const awayY = y0 + dy + ((hash >>> 10) & 1023) / 1023 - y;
      const away = awayX * awayX + awayY * awayY;
      if (away < far) {
        far = away;
        own = (hash >>> 20) / 4095;
      }
    }
  }
  return { far: Math.sqrt(far), own };
}

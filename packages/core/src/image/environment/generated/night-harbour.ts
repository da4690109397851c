import { blend, disc, halo, ramp, scaled, sum, whole, type Sky } from './sky-parts';

const MOON = [0.5, 0.62, -0.6] as const;
/** Lanterns along the harbour wall and on boats: direction, radius in radians, brightness and colour. */
const LANTERNS: readonly (readonly [readonly [number, number, number], number, readonly [number, number, number]])[] = [
  [[-0.95, 0.06, -0.3], 0.02, [260, 150, 60]],
  [[-0.7, 0.05, -0.72], 0.014, [220, 120, 42]],
  [[-0.25, 0.045, -0.97], 0.012, [240, 140, 55]],
  [[0.2, 0.05, -0.98], 0.013, [200, 125, 60]],
  [[0.72, 0.07, -0.7], 0.017, [250, 150, 58]],
  [[0.98, 0.3, 0.2], 0.03, [150, 78, 26]],
  [[-0.4, 0.1, 0.9], 0.022, [170, 190, 215]],
  [[0.55, 0.04, 0.84], 0.014, [250, 60, 30]],
];

/** A few cells of the sky hold a star, a dot in their middle. */
function starLight(around: number, height: number): number {
  const ring = Math.floor(height * 60);
  const cells = Math.max(1, Math.round(Math.cos((ring + 0.5) / 60) * 376));
  const along = (around / (2 * Math.PI) + 0.5) * cells;
  const chance = whole(Math.floor(along) + 1000, ring + 500);
  if (chance < 0.975) return 0;
  const away = Math.hypot(along - Math.floor(along) - 0.5, height * 60 - ring - 0.5);
  return ramp(0.35, 0.1, away) * (chance - 0.97) * 40;
}

/** Night over the harbour: a small moon, stars, lanterns on the wall, their light on the water. */
export const nightHarbour: Sky = (direction) => {
  const [x, y, z] = direction;
  const up: readonly [number, number, number] = [x, Math.abs(y), z];
  const dark = blend([0.02, 0.024, 0.038], [0.005, 0.008, 0.018], ramp(0, 0.7, Math.abs(y)));
  const stars = y > 0.06 && y < 0.93 ? starLight(Math.atan2(x, z), Math.asin(y)) : 0;
  const moon = scaled([900, 980, 1150], disc(up, MOON, 0.016));
  const haze = scaled([0.5, 0.58, 0.72], halo(up, MOON, 0.07));
  const lanterns = LANTERNS.map(([middle, radius, colour]) =>
    sum(scaled(colour, disc(up, middle, radius)), scaled(colour, halo(up, middle, radius * 1.6) * 0.012)),
  );
  const above = sum(dark, [stars, stars, stars * 1.1], haze, moon, ...lanterns);
  if (y > 0) return above;
  // Black water: it mirrors by Schlick's Fresnel, f0 0.02.
  const mirrored = 0.02 + 0.98 * (1 + y) ** 5;
  return sum(scaled(above, mirrored), [0.002, 0.003, 0.004]);
};

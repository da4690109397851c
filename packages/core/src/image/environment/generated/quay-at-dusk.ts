import { blend, disc, lumps, ramp, scaled, sum, towards, type Sky } from './sky-parts';

/** A hand above the water. */
const SUN = [-0.8, 0.16, 0.55] as const;

/** The quay at sundown: a low sun over the water, cloud banks lit from below, wet stones, sheds to one side. */
export const quayAtDusk: Sky = (direction) => {
  const [x, y, z] = direction;
  const near = Math.max(towards(direction, SUN), 0);
  const band = Math.exp(-Math.abs(y) * 5);
  const clear = blend([0.34, 0.2, 0.24], [0.035, 0.06, 0.16], ramp(0, 0.75, y));
  const glow = scaled([2.6, 0.95, 0.28], near ** 6 * band);
  const bank = ramp(0.45, 0.8, lumps(x * 5 + y * 9 + 20, z * 5 - y * 16 + 30)) * ramp(0.02, 0.12, y) * (1 - ramp(0.25, 0.5, y));
  const cloud = blend([0.1, 0.08, 0.13], [2.1, 0.75, 0.3], near ** 3);
  const heaven = blend(sum(clear, glow), cloud, bank * 0.75);
  const sun = scaled([2.4e4, 1.05e4, 3.2e3], disc(direction, SUN, 0.0075));
  if (y > 0.0) {
    const shed = z < -0.3 && y / Math.max(-z, 0.05) < 0.18 + (0.08 * Math.round(lumps((x / Math.max(-z, 0.05)) * 2.2 + 40, 0) * 3)) / 3;
    return shed ? [0.022, 0.02, 0.026] : sum(heaven, sun);
  }
  // Wet stones mirror the sky, most where they are looked at slantwise; the path of the sun lies on them in pieces.
  const slant = (1 + y) ** 5;
  const stone = blend([0.028, 0.025, 0.03], [0.05, 0.042, 0.045], lumps((x / Math.max(-y, 0.02)) * 3, (z / Math.max(-y, 0.02)) * 3));
  const mirrored = blend([0.1, 0.07, 0.09], [2.4, 0.85, 0.26], near ** 5);
  const path = ramp(0.985, 0.999, towards([x, -y, z], SUN)) * ramp(0.35, 0.8, lumps(x * 60, y * 140)) * 40;
  return sum(blend(stone, mirrored, 0.06 + 0.8 * slant), scaled([1, 0.45, 0.14], path * slant));
};

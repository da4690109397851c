import { blend, disc, lumps, ramp, scaled, sum, whole, type Sky } from './sky-parts';

/** Where the sun stands outside of the window. */
const SUN = [-0.62, 0.52, 0.58] as const;

/** A whitewashed loft by day: one large window with its bars to the north-west, a skylight, boards below. */
export const loftWindow: Sky = (direction) => {
  const [x, y, z] = direction;
  const wall = blend([0.34, 0.33, 0.31], [0.5, 0.5, 0.5], ramp(-0.3, 0.9, y));
  const below = Math.max(-y, 0.05);
  const board = (x / below) * 2.4;
  const seam = ramp(0.02, 0.05, Math.abs(board - Math.round(board)));
  const boards = scaled(blend([0.13, 0.1, 0.075], [0.22, 0.17, 0.125], whole(Math.floor(board) + 64, 9)), 0.5 + 0.5 * seam);
  const room = blend(boards, wall, ramp(-0.45, -0.32, y));
  // The window lies in the plane x = −1, one and a half wide and one high, its middle a little above the eye.
  const depth = Math.max(-x, 1e-3);
  const [across, up] = [(z / depth - 0.45) / 0.85, (y / depth - 0.42) / 0.62];
  const pane = x < 0 && Math.abs(across) < 1 && Math.abs(up) < 1;
  const bar = Math.abs(across) < 0.035 || Math.abs(up) < 0.045 || Math.abs(Math.abs(across) - 0.5) < 0.02;
  const outside = sum(
    blend([3.4, 4.1, 4.6], [2.2, 3.2, 5.4], ramp(0, 0.8, y)),
    scaled([5, 5, 4.8], ramp(0.5, 0.85, lumps((z / depth) * 3 + 7, (y / depth) * 5)) * 0.7),
    scaled([2.2e4, 2.0e4, 1.7e4], disc(direction, SUN, 0.0065)),
    scaled([9, 7.5, 5.5], disc(direction, SUN, 0.09)),
  );
  const high = Math.max(y, 1e-3);
  const skylight = y > 0 && Math.abs(x / high - 0.7) < 0.22 && Math.abs(z / high + 0.2) < 0.34;
  if (pane) return bar ? [0.22, 0.21, 0.2] : outside;
  return skylight ? [2.4, 3.1, 4.4] : room;
};

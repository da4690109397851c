import type { LightRig } from '@brelvin/contract';
import { mat4, vec3 } from 'gl-matrix';
import { MOST_SHADOWS } from '../document/light-rig';
import { standingLights, type StandingLight } from './lights';

/** Edge of one square of the shadow atlas, texels. */
export const SHADOW_SIDE = 1024;

/** A light's view of what stands on the Stage. */
export interface ShadowView {
  /** The number of the light, from 0. */
  readonly light: number;
  /** Clip space of the light from world space, z 0…1; column-major. */
  readonly clipFromWorld: mat4;
  /** Size of a texel on what is lit, metres. */
  readonly texel: number;
  /** Texels that half the edge of a shadow widens over a metre from what throws it. */
  readonly widening: number;
  /** Metres: of a spot to its nearest and farthest plane; of a sun between them, and 0. */
  readonly range: readonly [number, number];
}

/** A ball round everything that throws shadows, metres. */
export interface Ball {
  readonly middle: readonly number[];
  readonly radius: number;
}

/** A mesh that turns about an axis of its own stays within this much of the ball round it at rest. */
const ROOM = 1.08;

/** The smallest ball round the box of points x y z …; of no size round none. */
export function ballRound(points: ArrayLike<number>): Ball {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  for (let at = 0; at < points.length; at++) {
    low[at % 3] = Math.min(low[at % 3] ?? 0, points[at] ?? 0);
    high[at % 3] = Math.max(high[at % 3] ?? 0, points[at] ?? 0);
  }
  if (points.length < 3) return { middle: [0, 0, 0], radius: 0 };
  const middle = low.map((each, axis) => (each + (high[axis] ?? 0)) / 2);
  let radius = 0;
  for (let at = 0; at < points.length; at += 3)
    radius = Math.max(radius, Math.hypot(...middle.map((each, axis) => each - (points[at + axis] ?? 0))));
  return { middle, radius: radius * ROOM };
}

/**
 * The views of the lights that cast shadows, at most four. They depend on the lights and on what stands there, not on the
 * camera: shadows are still while one orbits.
 */
export function shadowViews(rig: LightRig, lightSeconds: number, casters: Ball): ShadowView[] {
  if (casters.radius <= 0) return [];
  return standingLights(rig, lightSeconds)
    .flatMap((standing, light) => {
      const { casts, kind } = standing.light;
      if (!casts || kind === 'point') return [];
      const view = kind === 'sun' ? sunView(standing, casters) : spotView(standing, casters);
      return view ? [{ light, ...view }] : [];
    })
    .slice(0, MOST_SHADOWS);
}

type View = Omit<ShadowView, 'light'>;

/** Without perspective, fitted to the ball. What is lit may lie far behind it: only its nearness to the light is asked. */
function sunView({ direction, light }: StandingLight, { middle, radius }: Ball): View {
  const eye = middle.map((each, axis) => each + (direction[axis] ?? 0) * radius * 2);
  const view = mat4.lookAt(mat4.create(), triple(eye), triple(middle), upFor(direction));
  const flat = mat4.orthoZO(mat4.create(), -radius, radius, -radius, radius, radius, radius * 3);
  const texel = (2 * radius) / SHADOW_SIDE;
  return { clipFromWorld: mat4.multiply(flat, flat, view), texel, widening: light.softness / texel, range: [radius * 2, 0] };
}

/** The cone of the spot; nothing where no caster is in front of it. */
function spotView({ direction, position, light }: StandingLight, { middle, radius }: Ball): View | undefined {
  const [, outer = 0.5] = light.cone;
  const away = Math.hypot(...middle.map((each, axis) => each - (position[axis] ?? 0)));
  const far = away + radius;
  const near = Math.max(away - radius, far / 1000, 0.01);
  const goal = position.map((each, axis) => each - (direction[axis] ?? 0));
  const view = mat4.lookAt(mat4.create(), triple(position), triple(goal), upFor(direction));
  const half = Math.min(Math.max(outer, 0.02), 1.5);
  const projection = mat4.perspectiveZO(mat4.create(), half * 2, 1, near, far);
  const texel = (2 * Math.tan(half) * Math.max(away, near)) / SHADOW_SIDE;
  return { clipFromWorld: mat4.multiply(projection, projection, view), texel, widening: light.softness / texel, range: [near, far] };
}

function upFor([, y = 0]: readonly number[]): [number, number, number] {
  return Math.abs(y) > 0.99 ? [0, 0, 1] : [0, 1, 0];
}

function triple([x = 0, y = 0, z = 0]: readonly number[]): vec3 {
  return vec3.fromValues(x, y, z);
}

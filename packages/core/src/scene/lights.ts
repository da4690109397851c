import type { LightMotion, LightRig, RigLight } from '@brelvin/contract';
import { colourOfStops } from '../document/stops';
import { isPunctual, lightsOf, MOST_LIGHTS, numberedLights, SUN } from '../document/light-rig';

/** A light as it stands at a moment. */
export interface StandingLight {
  readonly id: string;
  readonly light: RigLight;
  /** Unit vector, world space. */
  readonly direction: readonly number[];
  /** Metres, world space. */
  readonly position: readonly number[];
  /** Colour times intensity, scene-linear. */
  readonly colour: readonly number[];
}

/** What the block `Lights` holds, by member. */
export interface LightNumbers {
  readonly ambientColour: readonly number[];
  readonly ambientSlope: readonly number[];
  readonly sunDirection: readonly number[];
  readonly sunColour: readonly number[];
  readonly lightCount: readonly number[];
  readonly lightPlace: readonly (readonly number[])[];
  readonly lightColour: readonly (readonly number[])[];
  readonly lightAxis: readonly (readonly number[])[];
  readonly lightFalloff: readonly (readonly number[])[];
  readonly lightParts: readonly (readonly number[])[];
}

const NARROWEST = 1e-3;

/** Whether any light that shines moves. */
export function lightsMove(rig: LightRig): boolean {
  return lightsOf(rig).some(([, light]) => light.on && light.motion.kind !== 'still' && light.motion.speed !== 0);
}

/** Whether any light that shines throws shadows. */
export function throwsShadows(rig: LightRig): boolean {
  return numberedLights(rig).some(([, light]) => light.casts && light.kind !== 'point');
}

/** Programs that draw a surface as its light has it: of these a rig's pictures need one, and each can stand in for another. */
export type LitProgram = 'plain' | 'shadowed' | 'occluded';

/** The program of surfaces that a rig's pictures need; what is occluded is under shadows as well. */
export function litProgram(rig: LightRig): LitProgram {
  if (rig.occlusion) return 'occluded';
  return throwsShadows(rig) ? 'shadowed' : 'plain';
}

/** A light at a time of the lights' own clock, seconds. */
export function standingLight(id: string, light: RigLight, seconds: number): StandingLight {
  const { motion } = light;
  const turns = seconds * motion.speed + motion.phase;
  const tint = motion.kind === 'colours' ? colourInTime(motion, turns) : WHITE;
  const colour = light.colour.map((each, channel) => each * light.intensity * (tint[channel] ?? 1));
  return { id, light, colour, ...whereabouts(light, motion, turns) };
}

function whereabouts(
  { kind, direction, position }: RigLight,
  motion: LightMotion,
  turns: number,
): Pick<StandingLight, 'direction' | 'position'> {
  const unit = unitVector(direction);
  if (motion.kind === 'orbit') {
    const angle = turns * 2 * Math.PI;
    return { direction: aboutUp(unit, angle), position: aboutUp(position, angle) };
  }
  if (motion.kind !== 'sway') return { direction: unit, position };
  const swing = Math.sin(turns * 2 * Math.PI) * motion.reach;
  if (kind === 'sun') return { direction: aboutUp(unit, swing), position };
  return { direction: unit, position: [(position[0] ?? 0) + swing, position[1] ?? 0, position[2] ?? 0] };
}

/** All lights with a number, as they stand. */
export function standingLights(rig: LightRig, seconds: number): StandingLight[] {
  return numberedLights(rig).map(([id, light]) => standingLight(id, light, seconds));
}

/** The numbers of the block `Lights` at a time of the lights' own clock, seconds. */
export function lightNumbers(rig: LightRig, seconds: number, shadows: readonly { readonly light: number }[] = []): LightNumbers {
  const standing = standingLights(rig, seconds);
  const sun = standingLight(SUN, rig.sun, seconds);
  const pad = (of: (light: StandingLight, index: number) => readonly number[]): (readonly number[])[] =>
    Array.from({ length: MOST_LIGHTS }, (_, index) => {
      const light = standing[index];
      return light ? of(light, index) : [0, 0, 0, 0];
    });
  const cones = (light: RigLight): { scale: number; offset: number } => {
    const [inner = 0, outer = 0] = light.cone;
    // KHR_lights_punctual: from the outer cosine up to the inner one, never steeper than a thousandth.
    const scale = 1 / Math.max(0.001, Math.cos(Math.min(inner, outer - NARROWEST)) - Math.cos(outer));
    return { scale, offset: -Math.cos(outer) * scale };
  };
  return {
    ...ambientNumbers(rig, seconds),
    sunDirection: [...sun.direction, 0],
    sunColour: rig.sun.on ? [...sun.colour, 1] : [0, 0, 0, 1],
    lightCount: [standing.length, 0, 0, 0],
    lightPlace: pad(({ light, direction, position }) => (light.kind === 'sun' ? [...direction, 0] : [...position, 1])),
    lightColour: pad(({ colour }) => [...colour, 1]),
    lightAxis: pad(({ light, direction }) => (light.kind === 'spot' ? [...direction, cones(light).scale] : [0, 0, 0, 0])),
    lightFalloff: pad(({ light }, index) => [
      light.kind === 'sun' ? 0 : FALLOFF_CODES[light.falloff],
      light.range,
      cones(light).offset,
      shadows.findIndex((each) => each.light === index) + 1,
    ]),
    lightParts: Array.from({ length: MOST_LIGHTS }, (_, index) => lightParts(standing[index])).flat(),
  };
}

const WHITE = [1, 1, 1];

/** Colour times intensity of a light's ambient, diffuse and specular part, tint and weight included; in w the weight alone. */
export function lightParts(standing: Pick<StandingLight, 'light' | 'colour'> | undefined): number[][] {
  return [0, 1, 2].map((part) => {
    if (!standing) return [0, 0, 0, 0];
    const { light, colour } = standing;
    const weight = light.weights[part] ?? 0;
    return [...(light.tints?.[part] ?? WHITE).map((tint, channel) => (colour[channel] ?? 0) * tint * weight), weight];
  });
}

const FALLOFF_CODES = { none: 0, inverseSquare: 1, windowed: 2 } as const;

/** Ambient light and hemispheres together: a part from all sides, and a part that grows with the normal's height. */
function ambientNumbers(rig: LightRig, seconds: number): Pick<LightNumbers, 'ambientColour' | 'ambientSlope'> {
  const level = [0, 0, 0];
  const slope = [0, 0, 0];
  for (const [id, light] of lightsOf(rig)) {
    if (!light.on || isPunctual(light)) continue;
    const { colour } = standingLight(id, light, seconds);
    for (const channel of [0, 1, 2]) {
      const sky = colour[channel] ?? 0;
      const ground = light.kind === 'hemisphere' ? (light.ground[channel] ?? 0) * light.intensity : sky;
      level[channel] = (level[channel] ?? 0) + (sky + ground) / 2;
      slope[channel] = (slope[channel] ?? 0) + (sky - ground) / 2;
    }
  }
  return { ambientColour: [...level, 1], ambientSlope: [...slope, 0] };
}

/** The colour of a light that changes it: there and back through its gradient, or round the circle of hues. */
function colourInTime({ through }: LightMotion, turns: number): readonly number[] {
  // A triangle wave: at the end of a gradient it turns round.
  return through ? colourOfStops(through, 1 - Math.abs(1 - 2 * (turns - Math.floor(turns)))) : colourCircle(turns);
}

/** A full circle of hues at equal steps; each channel between 0 and 1. */
function colourCircle(turns: number): number[] {
  return [0, 1, 2].map((channel) => 0.5 + 0.5 * Math.cos(2 * Math.PI * (turns - channel / 3)));
}

function aboutUp([x = 0, y = 0, z = 0]: readonly number[], angle: number): number[] {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return [x * c + z * s, y, z * c - x * s];
}

function unitVector(vector: readonly number[]): readonly number[] {
  const length = Math.hypot(...vector);
  return length > 1e-9 ? vector.map((each) => each / length) : [0, 1, 0];
}

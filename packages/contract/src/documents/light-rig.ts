import { described, flag, list, number, object, oneOf, optional, tuple, type TypeOf } from '../schema/schema';
import { head } from './head';
import { IMAGE } from './image';
import { assetAddress, name } from './names';
import { byId, linearColour, metres, stops } from './values';

export const RIG_VERSION = 3;
/** Of which eight shine at a time. */
export const MOST_LIGHTS_IN_RIG = 32;

export const LIGHT_KINDS = ['ambient', 'hemisphere', 'sun', 'point', 'spot'] as const;
export const FALLOFFS = ['none', 'inverseSquare', 'windowed'] as const;
export const LIGHT_MOTIONS = ['still', 'orbit', 'sway', 'colours'] as const;
export const TONE_CURVES = ['none', 'reinhard', 'aces', 'neutral'] as const;
/** How a flat image fills the picture: wholly covered, wholly seen, or pulled to its shape. */
export const BACKGROUND_FITS = ['cover', 'contain', 'stretch'] as const;

export const LIGHT_MOTION = object({
  kind: oneOf(LIGHT_MOTIONS),
  speed: described(number(-100, 100), 'Rounds, swings or colour circles a second.'),
  phase: described(number(0, 1), 'Of a round.'),
  reach: described(number(0, 1000), 'Of a swing to and fro: metres to either side; for a sun, radians.'),
  through: optional(
    stops,
    'Of a change of colour: the gradient that its colour is multiplied by, there and back once a round; all hues when absent.',
  ),
});

export const RIG_LIGHT = object({
  kind: oneOf(LIGHT_KINDS),
  name,
  on: flag,
  order: number(),
  colour: described(linearColour, 'Scene-linear Rec. 709.'),
  temperature: optional(number(1000, 15_000), 'Kelvin that the colour was chosen by.'),
  intensity: described(number(0, 1e5), 'At 1 a white surface that faces it reads 1: a sun anywhere, other lights at 1 metre.'),
  ground: described(linearColour, 'What comes from below; of a hemisphere. Scene-linear Rec. 709.'),
  direction: described(
    tuple(number(-1.001, 1.001), 3),
    'Unit vector towards a sun, or from what a spot shines on towards it; world space.',
  ),
  position: described(tuple(metres, 3), 'Metres, world space; of a point or spot.'),
  weights: described(tuple(number(0, 100), 3), 'Ambient, diffuse and specular part.'),
  tints: optional(tuple(linearColour, 3), 'What its colour is multiplied by in its ambient, diffuse and specular part; white when absent.'),
  body: optional(
    number(0.001, 100),
    'Radius of a glowing ball that is seen where it stands, metres; none when absent. Of a point or spot.',
  ),
  falloff: oneOf(FALLOFFS),
  range: described(number(0.001, 1e5), 'Metres at which windowed light ends.'),
  cone: described(tuple(number(0, Math.PI / 2), 2), 'Half angles, radians: full light inside the first, none outside the second.'),
  motion: LIGHT_MOTION,
  casts: described(flag, 'Whether parts cast shadows in its light; suns and spots only.'),
  softness: described(number(0, 10), 'Half the width of a shadow’s edge, metres for each metre from what throws it.'),
});

export const RIG_ENVIRONMENT = object({
  name,
  assets: described(list(assetAddress, 1, 6), 'SHA-256 of one panorama, or of six images: +x −x +y −y +z −z.'),
  turn: described(number(-1e3, 1e3), 'Radians about the vertical, counter-clockwise from above.'),
  intensity: described(number(0, 1e4), 'Factor of its light, and of its picture.'),
  lights: described(flag, 'Whether it lights the meshes.'),
  shows: described(flag, 'Whether it is seen behind them.'),
  blur: described(number(0, 1), 'How blurred it is seen there.'),
  light: optional(
    tuple(tuple(number(), 3), 9),
    'Nine coefficients of its light (spherical harmonics to the second degree), scene-linear, so that what only that lights needs no file; worked out from the file when absent.',
  ),
});

export const BACKGROUND_IMAGE = object({ image: IMAGE, fit: oneOf(BACKGROUND_FITS) });

export const BLOOM = object({
  strength: described(number(0, 10), '0 is none.'),
  from: described(number(0, 1000), 'Scene-linear brightness, after exposure, from which light spreads.'),
});

export const FOG = object({
  density: described(number(0, 100), 'Part of the light that is lost over one metre, as a rate: 0 is clear air.'),
  colour: linearColour,
});

export const NEAR_OCCLUSION = object({
  radius: described(number(0.001, 1000), 'Metres that are looked for it.'),
  strength: number(0, 1),
});

export const LIGHT_RIG = object({
  ...head('brelvin-light-rig', RIG_VERSION),
  sun: RIG_LIGHT,
  ambient: RIG_LIGHT,
  lights: byId(RIG_LIGHT, MOST_LIGHTS_IN_RIG),
  background: described(linearColour, 'Scene-linear colour behind the meshes; of a gradient its lower end.'),
  backgroundTop: optional(linearColour, 'The upper end of a gradient behind the meshes.'),
  environment: optional(RIG_ENVIRONMENT),
  backgroundImage: optional(BACKGROUND_IMAGE, 'A flat image behind the meshes, in front of the colours. It lights nothing.'),
  transparent: optional(flag, 'Nothing is behind the meshes: stills have an alpha channel, and the Stage shows squares.'),
  exposure: described(number(-20, 20), 'Stops.'),
  curve: oneOf(TONE_CURVES),
  bloom: BLOOM,
  fog: FOG,
  occlusion: optional(
    NEAR_OCCLUSION,
    'Ambient occlusion: ambient light and that of the environment is less where surfaces are near each other; none when absent.',
  ),
});

export type LightKind = (typeof LIGHT_KINDS)[number];
export type Falloff = (typeof FALLOFFS)[number];
export type LightMotionKind = (typeof LIGHT_MOTIONS)[number];
export type ToneCurve = (typeof TONE_CURVES)[number];
export type BackgroundFit = (typeof BACKGROUND_FITS)[number];

/** How a light moves on its own clock, independent of meshes and camera. */
export interface LightMotion extends TypeOf<typeof LIGHT_MOTION> {}

export interface RigLight extends TypeOf<typeof RIG_LIGHT> {}

/** What is all around, far away: it may light, be seen behind the meshes, both, or neither. */
export interface RigEnvironment extends TypeOf<typeof RIG_ENVIRONMENT> {}

export interface BackgroundImage extends TypeOf<typeof BACKGROUND_IMAGE> {}

/** Light that spreads round what is brighter than the picture can show. */
export interface Bloom extends TypeOf<typeof BLOOM> {}

export interface Fog extends TypeOf<typeof FOG> {}

/** How what is near takes light from all around away. */
export interface NearOcclusion extends TypeOf<typeof NEAR_OCCLUSION> {}

/** The light on the Stage, and how the picture is shown. Every rig has a sun and ambient light, which can be switched off. */
export interface LightRig extends TypeOf<typeof LIGHT_RIG> {}

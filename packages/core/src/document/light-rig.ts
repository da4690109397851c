import type { MaterialImage } from './image';

export const RIG_VERSION = 3;
/** Of the uniform block `Lights`; ambient light and hemispheres do not count. */
export const MOST_LIGHTS = 8;
/** Of the shadow atlas. */
export const MOST_SHADOWS = 4;

export const LIGHT_KINDS = ['ambient', 'hemisphere', 'sun', 'point', 'spot'] as const;
export type LightKind = (typeof LIGHT_KINDS)[number];
export const FALLOFFS = ['none', 'inverseSquare', 'windowed'] as const;
export type Falloff = (typeof FALLOFFS)[number];
export const LIGHT_MOTIONS = ['still', 'orbit', 'sway', 'colours'] as const;
export type LightMotionKind = (typeof LIGHT_MOTIONS)[number];
export const TONE_CURVES = ['none', 'reinhard', 'aces', 'neutral'] as const;
export type ToneCurve = (typeof TONE_CURVES)[number];
/** How a flat image fills the picture: wholly covered, wholly seen, or pulled to its shape. */
export const BACKGROUND_FITS = ['cover', 'contain', 'stretch'] as const;
export type BackgroundFit = (typeof BACKGROUND_FITS)[number];
/** What is behind the meshes. */
export const BACKGROUND_KINDS = ['colour', 'gradient', 'image', 'environment', 'nothing'] as const;
export type BackgroundKind = (typeof BACKGROUND_KINDS)[number];

/** How a light moves on its own clock, independent of meshes and camera. */
export interface LightMotion {
  readonly kind: LightMotionKind;
  /** Rounds, swings or colour circles a second. */
  readonly speed: number;
  /** 0…1 of a round. */
  readonly phase: number;
  /** Of a swing to and fro: metres to either side; for a sun, radians. */
  readonly reach: number;
}

export interface RigLight {
  readonly kind: LightKind;
  readonly name: string;
  readonly on: boolean;
  readonly order: number;
  /** Scene-linear Rec. 709. */
  readonly colour: readonly number[];
  /** Kelvin that the colour was chosen by. */
  readonly temperature?: number;
  /** At 1 a white surface that faces it reads 1: a sun anywhere, other lights at 1 metre. */
  readonly intensity: number;
  /** What comes from below; of a hemisphere. Scene-linear Rec. 709. */
  readonly ground: readonly number[];
  /** Unit vector, world space: towards a sun; from what a spot shines on towards the spot. */
  readonly direction: readonly number[];
  /** Metres, world space; of a point or spot. */
  readonly position: readonly number[];
  /** Strength of its ambient, diffuse and specular part. */
  readonly weights: readonly number[];
  readonly falloff: Falloff;
  /** Metres at which windowed light ends. */
  readonly range: number;
  /** Half angles of a spot's cone, radians: full light inside the first, none outside the second. */
  readonly cone: readonly number[];
  readonly motion: LightMotion;
  /** Whether parts throw shadows in its light; suns and spots only. */
  readonly casts: boolean;
  /** Half the width of a shadow's edge, metres for each metre between what throws it and what it falls on. */
  readonly softness: number;
}

export const SUN = 'sun';
export const AMBIENT = 'ambient';

/** The light on the Stage, and how the picture is shown. Every rig has a sun and ambient light, which can be switched off. */
export interface LightRig {
  readonly format: 'brelvin-light-rig';
  readonly version: number;
  readonly name: string;
  readonly tags: readonly string[];
  readonly sun: RigLight;
  readonly ambient: RigLight;
  readonly lights: Readonly<Record<string, RigLight>>;
  /** Scene-linear colour behind the meshes; of a gradient its lower end. */
  readonly background: readonly number[];
  /** The upper end of a gradient behind the meshes. */
  readonly backgroundTop?: readonly number[];
  /** A flat image behind the meshes, in front of the colours. It lights nothing. */
  readonly backgroundImage?: BackgroundImage;
  /** What is all around. */
  readonly environment?: RigEnvironment;
  /** Nothing is behind the meshes: stills have an alpha channel, and the Stage shows squares. */
  readonly transparent?: boolean;
  /** Exposure in stops. */
  readonly exposure: number;
  readonly curve: ToneCurve;
  readonly bloom: Bloom;
  readonly fog: Fog;
  /** Light from all around is less where surfaces are near each other; everywhere the same when absent. */
  readonly occlusion?: NearOcclusion;
}

/** What is all around, far away: it may light, be seen behind the meshes, both, or neither. */
export interface RigEnvironment {
  readonly name: string;
  /** SHA-256 of files: of a panorama, or of six images, +x −x +y −y +z −z. */
  readonly assets: readonly string[];
  /** Radians about the vertical, counter-clockwise from above. */
  readonly turn: number;
  /** Factor of its light, and of its picture. */
  readonly intensity: number;
  /** Whether it lights the meshes. */
  readonly lights: boolean;
  /** Whether it is seen behind them. */
  readonly shows: boolean;
  /** How blurred it is seen there, 0…1. */
  readonly blur: number;
  /**
   * Its light from all around as nine coefficients of a colour (see image/environment/harmonics), so that what only that
   * lights needs no file; worked out from the file when absent.
   */
  readonly light?: readonly (readonly number[])[];
}

export interface BackgroundImage {
  readonly image: MaterialImage;
  readonly fit: BackgroundFit;
}

/** Light that spreads round what is brighter than the picture can show. */
export interface Bloom {
  /** 0 is none. */
  readonly strength: number;
  /** Scene-linear brightness, after exposure, from which light spreads. */
  readonly from: number;
}

/** How what is near takes light from all around away. */
export interface NearOcclusion {
  /** Metres that are looked for it. */
  readonly radius: number;
  /** 0…1. */
  readonly strength: number;
}

export const FIRST_OCCLUSION: NearOcclusion = { radius: 0.5, strength: 1 };

export interface Fog {
  /** Part of the light that is lost over one metre, as a rate: 0 is clear air. */
  readonly density: number;
  readonly colour: readonly number[];
}

export function backgroundKind({ transparent, environment, backgroundImage, backgroundTop }: LightRig): BackgroundKind {
  if (transparent) return 'nothing';
  if (environment?.shows) return 'environment';
  return backgroundImage ? 'image' : backgroundTop ? 'gradient' : 'colour';
}

/** All lights of a rig by id, in order: ambient light, the sun, then the others. */
export function lightsOf(rig: LightRig): [string, RigLight][] {
  const others = Object.entries(rig.lights).sort(([a, one], [b, other]) => one.order - other.order || a.localeCompare(b));
  return [[AMBIENT, rig.ambient], [SUN, rig.sun], ...others];
}

/** Whether a light has a place in the lights block: it shines from somewhere. */
export function isPunctual({ kind }: Pick<RigLight, 'kind'>): boolean {
  return kind !== 'ambient' && kind !== 'hemisphere';
}

/** Lights with a number, as nodes count them: those that shine from somewhere and are on, at most eight. */
export function numberedLights(rig: LightRig): [string, RigLight][] {
  return lightsOf(rig)
    .filter(([, light]) => light.on && isPunctual(light))
    .slice(0, MOST_LIGHTS);
}

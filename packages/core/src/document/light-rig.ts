import type { LightRig, NearOcclusion, RigLight } from '@brelvin/contract';

/** Of the uniform block `Lights`; ambient light and hemispheres do not count. */
export const MOST_LIGHTS = 8;
/** Of the shadow atlas. */
export const MOST_SHADOWS = 4;

export const SUN = 'sun';
export const AMBIENT = 'ambient';

/** What is behind the meshes. */
export type BackgroundKind = 'colour' | 'gradient' | 'image' | 'environment' | 'nothing';

export const FIRST_OCCLUSION: NearOcclusion = { radius: 0.5, strength: 1 };

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

import type { BackgroundImage, LightRig, RigEnvironment, RigLight } from '@brelvin/contract';
import type { Edit } from './edit';
import { AMBIENT, lightsOf, SUN, type BackgroundKind } from './light-rig';

/** Where a light stands in the document. */
export function lightPath(id: string): readonly string[] {
  return id === SUN || id === AMBIENT ? [id] : ['lights', id];
}

/** Changes one field of a light. */
export function setLight<K extends keyof RigLight>(id: string, field: K, value: RigLight[K], label: string): Edit {
  const path = [...lightPath(id), field];
  return { label, changes: [value === undefined ? { path } : { path, value: value }] };
}

/** Gives a light a colour by temperature, or one of its own, which then has none. */
export function colourLight(id: string, light: RigLight, colour: readonly number[], temperature?: number): Edit {
  const label = `Colour of ${light.name}`;
  const path = lightPath(id);
  const kelvin = [...path, 'temperature'];
  return {
    label,
    changes: [
      { path: [...path, 'colour'], value: colour },
      ...(temperature === undefined ? (light.temperature === undefined ? [] : [{ path: kelvin }]) : [{ path: kelvin, value: temperature }]),
    ],
  };
}

export function addLight(id: string, light: RigLight): Edit {
  return { label: `Add ${light.name}`, changes: [{ path: ['lights', id], value: light }] };
}

/** Takes a light away; the sun and the ambient light stay and can only be switched off. */
export function removeLight(rig: LightRig, id: string): Edit {
  return { label: `Remove ${rig.lights[id]?.name ?? 'a light'}`, changes: [{ path: ['lights', id] }] };
}

/** Whether anything but the environment lights the meshes. */
export function hasOwnLight(rig: LightRig): boolean {
  return lightsOf(rig).some(([, { on, intensity }]) => on && intensity > 0);
}

/** Switches everything off but the environment. */
export function environmentAlone(rig: LightRig): Edit {
  const shining = lightsOf(rig).filter(([, { on }]) => on);
  return { label: 'Let the environment light alone', changes: shining.map(([id]) => ({ path: [...lightPath(id), 'on'], value: false })) };
}

/** Changes how the rig shows the picture. */
export function setRig<K extends 'background' | 'backgroundTop' | 'exposure' | 'curve' | 'bloom' | 'fog' | 'occlusion'>(
  field: K,
  value: LightRig[K],
  label: string,
): Edit {
  return { label, changes: [value === undefined ? { path: [field] } : { path: [field], value: value }] };
}

/** What a gradient has above when it begins. Scene-linear. */
const FIRST_TOP = [0.2, 0.2, 0.2];

/** Puts something else behind the meshes; colours stay for when they are wanted again. */
export function setBackgroundKind(rig: LightRig, kind: BackgroundKind, image = rig.backgroundImage): Edit {
  const gone = (field: keyof LightRig): Edit['changes'] => (rig[field] === undefined ? [] : [{ path: [field] }]);
  const shown = rig.environment && rig.environment.shows !== (kind === 'environment');
  const around = shown ? [{ path: ['environment', 'shows'], value: kind === 'environment' }] : [];
  const top = kind === 'gradient' && !rig.backgroundTop ? [{ path: ['backgroundTop'], value: FIRST_TOP }] : [];
  return {
    label: 'Background',
    changes: [
      ...around,
      ...(kind === 'nothing' ? [{ path: ['transparent'], value: true }] : gone('transparent')),
      ...(kind === 'image' && image ? setBackgroundImage(image).changes : KEEPS_IMAGE.has(kind) ? [] : gone('backgroundImage')),
      ...(kind === 'colour' ? gone('backgroundTop') : top),
    ],
  };
}

/** Nothing and an environment come before an image, which waits. */
const KEEPS_IMAGE: ReadonlySet<BackgroundKind> = new Set(['nothing', 'environment']);

/** How an environment is used when it is taken up first: it lights and is seen. */
export const FIRST_ENVIRONMENT: Omit<RigEnvironment, 'name' | 'assets' | 'light'> = {
  turn: 0,
  intensity: 1,
  lights: true,
  shows: true,
  blur: 0,
};

/**
 * Puts another environment in the place of the one that is there, which keeps its turn and all that is set; nothing takes it
 * away.
 */
export function swapEnvironment(rig: LightRig, wanted?: Pick<RigEnvironment, 'name' | 'assets' | 'light'>): Edit {
  if (!wanted) return { label: 'No environment', changes: rig.environment ? [{ path: ['environment'] }] : [] };
  // The light of the one before is not its own.
  const kept = { ...(rig.environment ?? FIRST_ENVIRONMENT), light: undefined };
  const { light, ...value } = { ...kept, ...wanted };
  const seen = value.shows && rig.transparent ? [{ path: ['transparent'] }] : [];
  return {
    label: `Environment: ${wanted.name}`,
    changes: [{ path: ['environment'], value: { ...value, ...(light ? { light } : {}) } }, ...seen],
  };
}

export function setEnvironment<K extends Exclude<keyof RigEnvironment, 'name' | 'assets' | 'light'>>(
  field: K,
  value: RigEnvironment[K],
  label: string,
): Edit {
  return { label, changes: [{ path: ['environment', field], value }] };
}

export function setBackgroundImage(image: BackgroundImage): Edit {
  return { label: 'Background image', changes: [{ path: ['backgroundImage'], value: image }] };
}

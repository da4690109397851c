import type { Edit } from './edit';
import type { Json } from './json';
import { AMBIENT, SUN, type BackgroundImage, type BackgroundKind, type LightRig, type RigLight } from './light-rig';

/** Where a light stands in the document. */
export function lightPath(id: string): readonly string[] {
  return id === SUN || id === AMBIENT ? [id] : ['lights', id];
}

/** Changes one field of a light. */
export function setLight<K extends keyof RigLight>(id: string, field: K, value: RigLight[K], label: string): Edit {
  const path = [...lightPath(id), field];
  return { label, changes: [value === undefined ? { path } : { path, value: value as Json }] };
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
  return { label: `Add ${light.name}`, changes: [{ path: ['lights', id], value: light as unknown as Json }] };
}

/** Takes a light away; the sun and the ambient light stay and can only be switched off. */
export function removeLight(rig: LightRig, id: string): Edit {
  return { label: `Remove ${rig.lights[id]?.name ?? 'a light'}`, changes: [{ path: ['lights', id] }] };
}

/** Changes how the rig shows the picture. */
export function setRig<K extends 'background' | 'backgroundTop' | 'exposure' | 'curve' | 'bloom' | 'fog'>(
  field: K,
  value: LightRig[K],
  label: string,
): Edit {
  return { label, changes: [value === undefined ? { path: [field] } : { path: [field], value: value as Json }] };
}

/** What a gradient has above when it begins. Scene-linear. */
const FIRST_TOP = [0.2, 0.2, 0.2];

/** Puts something else behind the meshes; colours stay for when they are wanted again. */
export function setBackgroundKind(rig: LightRig, kind: BackgroundKind, image = rig.backgroundImage): Edit {
  const gone = (field: keyof LightRig): Edit['changes'] => (rig[field] === undefined ? [] : [{ path: [field] }]);
  const top = kind === 'gradient' && !rig.backgroundTop ? [{ path: ['backgroundTop'], value: FIRST_TOP }] : [];
  return {
    label: 'Background',
    changes: [
      ...(kind === 'nothing' ? [{ path: ['transparent'], value: true }] : gone('transparent')),
      ...(kind === 'image' && image ? setBackgroundImage(image).changes : kind === 'nothing' ? [] : gone('backgroundImage')),
      ...(kind === 'colour' ? gone('backgroundTop') : top),
    ],
  };
}

export function setBackgroundImage(image: BackgroundImage): Edit {
  return { label: 'Background image', changes: [{ path: ['backgroundImage'], value: image as unknown as Json }] };
}

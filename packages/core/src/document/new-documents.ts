import {
  type GraphNode,
  RIG_VERSION,
  type LightRig,
  MATERIAL_VERSION,
  type Material,
  SET_VERSION,
  type MeshShape,
  type SetMesh,
  type StageSet,
} from '@brelvin/contract';
import { EMPTY_GRAPH } from './graph';
import { newLight } from './new-lights';
import { IN_PLACE, NO_FLOOR, ONE_COPY, STILL } from './set';

/** A plain lit material: a colour under Lambert's law, already at the dock. */
export function newMaterial(name: string, seenIn: Material['seenIn'] = {}): Material {
  const node = (kind: string, x: number, y: number): GraphNode => ({ kind, rev: 1, x, y, values: {} });
  return {
    format: 'brelvin-material',
    version: MATERIAL_VERSION,
    name,
    tags: [],
    surface: {
      ...EMPTY_GRAPH,
      nodes: { colour: { ...node('colour', 60, 120), values: { value: [0.55, 0.55, 0.55] } }, lambert: node('lambert', 320, 120) },
      ribbons: { 'lambert.base': { from: 'colour', outlet: 'result' }, 'dock.colour': { from: 'lambert', outlet: 'result' } },
    },
    groups: {},
    parameters: {},
    images: {},
    variants: {},
    silenced: {},
    notes: '',
    seenIn,
  };
}

/** What the floor of a set wears where no rule dresses it. */
export function newFloorMaterial(): Material {
  return newMaterial('Floor');
}

export const MESH = 'mesh';

export function newMesh(
  shape: MeshShape,
  numbers: Readonly<Record<string, number>> = {},
  changes: Partial<Omit<SetMesh, 'shape' | 'numbers'>> = {},
): SetMesh {
  const base = { placing: IN_PLACE, motion: STILL, copies: ONE_COPY, order: 0, smooth: shape !== 'cube' };
  // "torusKnot" is called "Torus knot".
  const words = shape.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);
  return { ...base, name: `${words.charAt(0).toUpperCase()}${words.slice(1)}`, shape, numbers, ...changes };
}

export function newSet(name: string, shape: MeshShape = 'sphere', numbers: Readonly<Record<string, number>> = {}): StageSet {
  return {
    format: 'brelvin-set',
    version: SET_VERSION,
    name,
    tags: [],
    meshes: { [MESH]: newMesh(shape, numbers) },
    floor: NO_FLOOR,
    partRules: {},
    views: {},
  };
}

/** A sun over the left shoulder and a little ambient light. */
export function newRig(name: string): LightRig {
  return {
    format: 'brelvin-light-rig',
    version: RIG_VERSION,
    name,
    tags: [],
    sun: newLight('sun'),
    ambient: newLight('ambient'),
    lights: {},
    background: [0.05, 0.05, 0.05],
    exposure: 0,
    curve: 'none',
    bloom: { strength: 0, from: 1 },
    fog: { density: 0, colour: [0.5, 0.5, 0.5] },
  };
}

import { isJsonObject, type Json } from '@brelvin/contract';
import { newLight } from './new-lights';
import { IN_PLACE, NO_FLOOR, ONE_COPY, STILL } from './set';

/** Takes a document of one version to the next. It only adds, so that steps saved before it still apply after it. */
export type Migration = (document: object) => object;

type Fields = { readonly [key: string]: Json };

const fields = (value: unknown): Fields => (isJsonObject(value) ? value : {});

/** Areas, notes, groups, images, variants, tags and switched-off checks. */
export const materialFrom1: Migration = (document) => {
  const before = fields(document);
  return {
    ...before,
    version: 2,
    tags: [],
    surface: { ...fields(before['surface']), areas: {}, notes: {} },
    groups: {},
    images: {},
    variants: {},
    silenced: {},
  };
};

/** What version 1 knew. */
const MESH_NAMES: Readonly<Record<string, string>> = { sphere: 'Sphere', cube: 'Cube', plane: 'Plane', torusKnot: 'Torus knot' };

const nameOf = (shape: Json | undefined): string => (typeof shape === 'string' && MESH_NAMES[shape]) || 'Mesh';

/** Places, motion, copies, the floor and rules for parts. */
export const setFrom1: Migration = (document) => {
  const before = fields(document);
  const meshes = Object.entries(fields(before['meshes'])).map(([id, mesh], order) => [
    id,
    {
      ...fields(mesh),
      name: nameOf(fields(mesh)['shape']),
      placing: IN_PLACE,
      motion: STILL,
      copies: ONE_COPY,
      order,
    },
  ]);
  return { ...before, version: 2, tags: [], meshes: Object.fromEntries(meshes) as object, floor: NO_FLOOR, partRules: {} };
};

/** Views of the camera. */
export const setFrom2: Migration = (document) => ({ ...document, version: 3, views: {} });

/** More lights, with all they can be told; tone curve, bloom and fog. */
export const rigFrom2: Migration = (document) => {
  const before = fields(document);
  return {
    ...before,
    version: 3,
    sun: { ...newLight('sun'), ...fields(before['sun']) },
    ambient: { ...newLight('ambient'), ...fields(before['ambient']) },
    lights: {},
    curve: 'none',
    bloom: { strength: 0, from: 1 },
    fog: { density: 0, colour: [0.5, 0.5, 0.5] },
  };
};

export const rigFrom1: Migration = (document) => ({ ...document, version: 2, tags: [] });

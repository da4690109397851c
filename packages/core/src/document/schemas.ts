import { LONGEST_SOURCE } from '../limits';
import { IMAGE_FILTERS, IMAGE_ROLES, IMAGE_WRAPS } from './image';
import { BACKGROUND_FITS, FALLOFFS, LIGHT_KINDS, LIGHT_MOTIONS, RIG_VERSION, TONE_CURVES } from './light-rig';
import { LIVE_KINDS } from './live-input';
import { MATERIAL_VERSION, OPACITY_MODES, OUTLINE_METHODS, OUTLINE_UNITS, PARAMETER_TYPES } from './material';
import { FUNCTION_VERSION } from './function';
import { RIBBON_TYPES } from './ribbon-types';
import type { Field, Schema } from './schema';
import { FLOOR_LOOKS, MADE_FOR_MESH, MESH_SHAPE_NAMES, MOST_COPIES, SET_VERSION } from './set';

export const LONGEST_NAME = 120;
export const LONGEST_TAG = 40;
export const MOST_TAGS = 32;
/** Of one mesh. */
export const MOST_PARTS = 1000;
/** Of which eight shine at a time. */
export const MOST_LIGHTS_IN_RIG = 32;
/** What a name of ours looks like: it stands in paths and keys, so no dots, and nothing that JavaScript objects treat specially. */
const IDENTIFIER = '^(?!__proto__$|constructor$|prototype$)[A-Za-z][A-Za-z0-9_-]{0,63}$';
export const CODE_NAME = '^[A-Za-z_][A-Za-z0-9_]{0,63}$';
const FARTHEST = 1e6;

const text = (longest: number, shortest = 0): Schema => ({ kind: 'string', longest, shortest });
const number = (least = -1e9, most = 1e9): Schema => ({ kind: 'number', least, most });
const list = (of: Schema, count: number): Schema => ({ kind: 'list', of, shortest: count, longest: count });
const record = (of: Schema, longest: number, keys = IDENTIFIER): Schema => ({ kind: 'record', keys, of, longest });
const object = (fields: Readonly<Record<string, Field>>): Schema => ({ kind: 'object', fields });
const identifier: Schema = { kind: 'string', longest: 64, pattern: IDENTIFIER };
/** A name in shading code. */
const codeName: Schema = { kind: 'string', longest: 64, pattern: CODE_NAME };
const documentId: Schema = { kind: 'string', longest: 64, pattern: '^[A-Za-z0-9_-]{1,64}$' };
const oneOf = (...values: readonly string[]): Schema => ({ kind: 'exactly', values });
const yesOrNo: Schema = { kind: 'boolean' };
const whole = (least: number, most: number): Schema => ({ kind: 'number', least, most, whole: true });
const linearColour = list(number(0, 1e4), 3);

const inletValue: Schema = {
  kind: 'either',
  of: [number(), { kind: 'list', of: number(), shortest: 1, longest: 32 }],
  expected: 'a number or a list of 1 to 32 numbers',
};
const place = number(-FARTHEST, FARTHEST);
const extent = number(1, FARTHEST);
const box = { x: { schema: place }, y: { schema: place }, width: { schema: extent }, height: { schema: extent } };
const assetAddress: Schema = { kind: 'string', longest: 64, pattern: '^[0-9a-f]{64}$' };

const graphFields: Record<string, Field> = {
  nodes: {
    schema: record(
      object({
        kind: { schema: identifier, help: 'Id of a node kind of the catalogue.' },
        rev: { schema: whole(1, 1e6) },
        x: { schema: place },
        y: { schema: place },
        values: { schema: record(inletValue, 64), help: 'Values typed into inlets, by inlet.' },
        name: { schema: text(LONGEST_NAME, 1), optional: true, help: 'In place of the kind’s title.' },
        preview: { schema: { kind: 'boolean' }, optional: true, help: 'Whether it shows a small picture.' },
        parameter: { schema: identifier, optional: true },
        group: { schema: identifier, optional: true },
        code: { schema: text(20_000), optional: true, help: 'Functions, of which the last one is the node.' },
        image: { schema: identifier, optional: true },
        features: {
          schema: { kind: 'list', of: identifier, shortest: 1, longest: 32 },
          optional: true,
          help: 'Features of its kind that are on.',
        },
      }),
      10_000,
    ),
  },
  ribbons: {
    schema: record(
      object({
        from: { schema: identifier },
        outlet: { schema: identifier },
        bends: { schema: { kind: 'list', of: list(place, 2), shortest: 1, longest: 64 }, optional: true },
      }),
      50_000,
      '^[A-Za-z][A-Za-z0-9_-]{0,63}\\.[A-Za-z][A-Za-z0-9_-]{0,63}$',
    ),
    help: 'By the inlet where the ribbon ends: "node.inlet", or "dock.inlet".',
  },
  areas: { schema: record(object({ title: { schema: text(LONGEST_NAME) }, ...box }), 1000) },
  notes: { schema: record(object({ text: { schema: text(10_000) }, ...box }), 1000) },
};

const graph = object(graphFields);

const groupPorts = record(
  object({
    label: { schema: text(LONGEST_NAME, 1) },
    type: { schema: oneOf(...RIBBON_TYPES) },
    order: { schema: number() },
    value: { schema: inletValue, optional: true, help: 'What an open inlet gives.' },
    low: { schema: number(), optional: true },
    high: { schema: number(), optional: true },
  }),
  64,
);

const tags: Schema = { kind: 'list', of: text(LONGEST_TAG, 1), shortest: 0, longest: MOST_TAGS };

const head = (format: string, version: number): Record<string, Field> => ({
  format: { schema: oneOf(format) },
  version: { schema: { kind: 'exactly', values: [version] } },
  name: { schema: text(LONGEST_NAME, 1) },
  tags: { schema: tags },
});

const liveInput = object({
  kind: { schema: oneOf(...LIVE_KINDS) },
  low: { schema: number() },
  high: { schema: number() },
  period: { schema: number(0, 86_400), help: 'Seconds.' },
  phase: { schema: number(0, 1) },
  speed: { schema: number() },
});

const image = object({
  name: { schema: text(LONGEST_NAME) },
  asset: { schema: assetAddress, help: 'SHA-256 of the file.' },
  width: { schema: whole(1, 1e6) },
  height: { schema: whole(1, 1e6) },
  role: { schema: oneOf(...IMAGE_ROLES) },
  wrapX: { schema: oneOf(...IMAGE_WRAPS) },
  wrapY: { schema: oneOf(...IMAGE_WRAPS) },
  filter: { schema: oneOf(...IMAGE_FILTERS) },
  uvSet: { schema: whole(0, 1) },
  faces: {
    schema: { kind: 'list', of: assetAddress, shortest: 6, longest: 6 },
    optional: true,
    help: 'Of a cube image: +x −x +y −y +z −z.',
  },
  linked: { schema: text(LONGEST_NAME, 1), optional: true, help: 'Name of the workspace’s image that it follows.' },
});

const images = record(image, 256);

const parameters = record(
  object({
    name: { schema: text(LONGEST_NAME, 1) },
    type: { schema: oneOf(...PARAMETER_TYPES) },
    value: { schema: inletValue },
    low: { schema: number(), optional: true },
    high: { schema: number(), optional: true },
    order: { schema: number() },
    heading: { schema: text(LONGEST_NAME, 1), optional: true },
    help: { schema: text(1000), optional: true },
    unit: { schema: text(20), optional: true },
    live: { schema: liveInput, optional: true },
    uniform: { schema: codeName, optional: true, help: 'The uniform of a code material that it is.' },
    choices: { schema: { kind: 'list', of: text(60, 1), shortest: 1, longest: 64 }, optional: true },
    image: { schema: identifier, optional: true },
  }),
  1000,
);

const groups = record(
  object({
    title: { schema: text(LONGEST_NAME, 1) },
    help: { schema: text(1000) },
    eachLight: { schema: yesOrNo, optional: true },
    inlets: { schema: groupPorts },
    outlets: { schema: groupPorts },
    graph: { schema: graph },
  }),
  1000,
);

/** What the clipboard holds. */
export const CLIPPING_SCHEMA = object({
  format: { schema: oneOf('brelvin-nodes') },
  version: { schema: { kind: 'exactly', values: [1] } },
  ...graphFields,
  parameters: { schema: parameters },
  groups: { schema: groups },
  images: { schema: images },
});

export const MATERIAL_SCHEMA = object({
  ...head('brelvin-material', MATERIAL_VERSION),
  surface: { schema: graph },
  code: {
    schema: object({ text: { schema: text(LONGEST_SOURCE) }, vertices: { schema: text(LONGEST_SOURCE), optional: true } }),
    optional: true,
    help: 'Shading code in place of the graph.',
  },
  groups: { schema: groups },
  parameters: { schema: parameters },
  images: { schema: images },
  outline: {
    schema: object({
      method: { schema: oneOf(...OUTLINE_METHODS) },
      width: { schema: number(0, 100), help: 'CSS pixels, or metres.' },
      unit: { schema: oneOf(...OUTLINE_UNITS) },
      hidden: { schema: yesOrNo, help: 'Also seen through what stands in front.' },
    }),
    optional: true,
  },
  opacity: { schema: oneOf(...OPACITY_MODES), optional: true, help: 'How what runs into the dock’s opacity is used; blend when absent.' },
  variants: {
    schema: record(
      object({ name: { schema: text(LONGEST_NAME, 1) }, order: { schema: number() }, values: { schema: record(inletValue, 1000) } }),
      200,
    ),
  },
  silenced: {
    schema: record(yesOrNo, 10_000, '^[A-Za-z][A-Za-z0-9_ /.-]{0,200}$'),
    help: 'Checks switched off for a place, as "check place".',
  },
  notes: { schema: text(100_000) },
  seenIn: { schema: object({ set: { schema: documentId, optional: true }, rig: { schema: documentId, optional: true } }) },
});

export const FUNCTION_SCHEMA = object({
  ...head('brelvin-function', FUNCTION_VERSION),
  name: { schema: codeName, help: 'The name by which it is imported; a function of this name is in the text.' },
  text: { schema: text(LONGEST_SOURCE) },
  formerNames: {
    schema: { kind: 'list', of: codeName, shortest: 0, longest: 64 },
    help: 'What it was called before; these names go on working.',
  },
});

const metres = number(-1e4, 1e4);

const mesh = object({
  name: { schema: text(LONGEST_NAME, 1) },
  shape: { schema: oneOf(...MESH_SHAPE_NAMES) },
  numbers: { schema: record(number(), 32) },
  smooth: { schema: yesOrNo },
  formula: { schema: text(4000), optional: true, help: 'Shading code: a height of (x, z), or a position of (u, v).' },
  source: {
    schema: object({
      asset: { schema: assetAddress, help: 'SHA-256 of the mesh.' },
      file: { schema: text(LONGEST_NAME) },
      parts: { schema: { kind: 'list', of: text(LONGEST_NAME, 1), shortest: 1, longest: MOST_PARTS } },
      triangles: { schema: whole(0, 1e9) },
      made: { schema: { kind: 'list', of: oneOf(...MADE_FOR_MESH), shortest: 0, longest: MADE_FOR_MESH.length } },
      gap: { schema: number(0, 1e6), help: 'How far apart vertices lie in UV.' },
      mirrored: { schema: yesOrNo },
      bounds: { schema: object({ low: { schema: list(number(-1e30, 1e30), 3) }, high: { schema: list(number(-1e30, 1e30), 3) } }) },
    }),
    optional: true,
    help: 'Of an imported mesh.',
  },
  placing: {
    schema: object({
      position: { schema: list(metres, 3) },
      turn: { schema: list(number(-1e3, 1e3), 3), help: 'Radians about x, then y, then z.' },
      scale: { schema: list(metres, 3), help: 'Negative mirrors.' },
    }),
  },
  motion: {
    schema: object({
      kind: { schema: oneOf('still', 'spin', 'rock') },
      axis: { schema: oneOf('x', 'y', 'z') },
      speed: { schema: number(-100, 100), help: 'Turns or swings a second.' },
      angle: { schema: number(-7, 7), help: 'Half the swing, radians.' },
    }),
  },
  copies: {
    schema: object({
      columns: { schema: whole(1, MOST_COPIES) },
      rows: { schema: whole(1, MOST_COPIES) },
      spacing: { schema: number(0, 1e3) },
    }),
  },
  order: { schema: number() },
});

const partRule = object({
  order: { schema: number() },
  mesh: { schema: identifier, optional: true },
  pattern: { schema: text(LONGEST_NAME, 1), help: 'Part name; * stands for any letters.' },
  material: { schema: documentId, optional: true },
  values: { schema: record(inletValue, 1000) },
  drawOrder: { schema: number(-1000, 1000), optional: true },
  depthOffset: { schema: number(-10, 10), optional: true, help: 'Metres towards the eye.' },
  faces: { schema: oneOf('auto', 'front', 'back', 'both'), optional: true },
  casts: { schema: yesOrNo, optional: true },
  receives: { schema: yesOrNo, optional: true },
});

export const SET_SCHEMA = object({
  ...head('brelvin-set', SET_VERSION),
  meshes: { schema: record(mesh, 256) },
  floor: {
    schema: object({
      shown: { schema: yesOrNo },
      height: { schema: metres },
      size: { schema: number(0.1, 1e4) },
      look: { schema: oneOf(...FLOOR_LOOKS), optional: true },
    }),
  },
  partRules: { schema: record(partRule, 1000) },
  views: {
    schema: record(
      object({
        name: { schema: text(LONGEST_NAME, 1) },
        order: { schema: number() },
        camera: {
          schema: object({
            target: { schema: list(metres, 3) },
            distance: { schema: number(0, 1e4), help: 'Metres.' },
            azimuth: { schema: number(-1e4, 1e4) },
            elevation: { schema: number(-2, 2) },
            fieldOfView: { schema: number(0.01, 3), help: 'Vertical, radians.' },
            orthographic: { schema: yesOrNo, optional: true },
          }),
        },
      }),
      200,
    ),
  },
});

const direction = list(number(-1.001, 1.001), 3);
const strength = number(0, 1e5);

const light = object({
  kind: { schema: oneOf(...LIGHT_KINDS) },
  name: { schema: text(LONGEST_NAME, 1) },
  on: { schema: yesOrNo },
  order: { schema: number() },
  colour: { schema: linearColour },
  temperature: { schema: number(1000, 15_000), optional: true, help: 'Kelvin that the colour was chosen by.' },
  intensity: { schema: strength },
  ground: { schema: linearColour, help: 'What comes from below; of a hemisphere.' },
  direction: { schema: direction, help: 'Unit vector towards a sun, or from what a spot shines on towards it; world space.' },
  position: { schema: list(metres, 3) },
  weights: { schema: list(number(0, 100), 3), help: 'Ambient, diffuse and specular part.' },
  falloff: { schema: oneOf(...FALLOFFS) },
  range: { schema: number(0.001, 1e5), help: 'Metres.' },
  cone: { schema: list(number(0, Math.PI / 2), 2), help: 'Half angles, radians: full light inside the first, none outside the second.' },
  motion: {
    schema: object({
      kind: { schema: oneOf(...LIGHT_MOTIONS) },
      speed: { schema: number(-100, 100) },
      phase: { schema: number(0, 1) },
      reach: { schema: number(0, 1000) },
    }),
  },
  casts: { schema: yesOrNo },
  softness: { schema: number(0, 10), help: 'Half the width of a shadow’s edge, metres for each metre from what throws it.' },
});

export const RIG_SCHEMA = object({
  ...head('brelvin-light-rig', RIG_VERSION),
  sun: { schema: light },
  ambient: { schema: light },
  lights: { schema: record(light, MOST_LIGHTS_IN_RIG) },
  background: { schema: linearColour },
  backgroundTop: { schema: linearColour, optional: true },
  environment: {
    schema: object({
      name: { schema: text(LONGEST_NAME, 1) },
      assets: {
        schema: { kind: 'list', of: assetAddress, shortest: 1, longest: 6 },
        help: 'SHA-256 of one panorama, or of six images: +x −x +y −y +z −z.',
      },
      turn: { schema: number(-1e3, 1e3), help: 'Radians about the vertical.' },
      intensity: { schema: number(0, 1e4) },
      lights: { schema: yesOrNo },
      shows: { schema: yesOrNo },
      blur: { schema: number(0, 1) },
      light: { schema: list(list(number(), 3), 9), optional: true, help: 'Nine coefficients of its light, scene-linear.' },
    }),
    optional: true,
  },
  backgroundImage: { schema: object({ image: { schema: image }, fit: { schema: oneOf(...BACKGROUND_FITS) } }), optional: true },
  transparent: { schema: yesOrNo, optional: true },
  exposure: { schema: number(-20, 20), help: 'Stops.' },
  curve: { schema: oneOf(...TONE_CURVES) },
  bloom: { schema: object({ strength: { schema: number(0, 10) }, from: { schema: number(0, 1000) } }) },
  fog: { schema: object({ density: { schema: number(0, 100) }, colour: { schema: linearColour } }) },
  occlusion: { schema: object({ radius: { schema: number(0.001, 1000) }, strength: { schema: number(0, 1) } }), optional: true },
});

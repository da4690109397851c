import { described, flag, inert, list, number, object, oneOf, optional, record, text, tunable, type TypeOf } from '../schema/schema';
import { GRAPH } from './graph';
import { NODE_GROUP } from './group';
import { head } from './head';
import { IMAGE } from './image';
import { LIVE_INPUT } from './live-input';
import { codeName, documentId, identifier, name } from './names';
import { byId, inletValue } from './values';

export const MATERIAL_VERSION = 2;
/** Characters that a text of shading code may have. */
export const LONGEST_SOURCE = 200_000;

/** `vector`: two to four numbers; `count`: a whole number; `choice`: the number of one of `choices`; `switch`: 0 or 1; `stops`: a gradient. */
export const PARAMETER_TYPES = ['number', 'colour', 'vector', 'count', 'choice', 'switch', 'stops', 'image'] as const;
/** `hull`: the mesh, grown, behind itself. `edges`: where depth, direction or part breaks in the picture. */
export const OUTLINE_METHODS = ['hull', 'edges'] as const;
export const OUTLINE_UNITS = ['pixels', 'metres'] as const;
/**
 * How what runs into the dock's opacity is used: laid over what is behind, the farthest first; laid over in no order, weighed
 * by how near it is; cut away below one half; or added.
 */
export const OPACITY_MODES = ['blend', 'unsorted', 'cut', 'add'] as const;

export const PARAMETER = object({
  name: inert(name),
  type: oneOf(PARAMETER_TYPES),
  value: tunable(inletValue),
  low: inert(optional(number(), 'Where a number’s track begins.')),
  high: inert(optional(number())),
  order: inert(number()),
  heading: inert(optional(name, 'Parameters of one heading stand together in the panel.')),
  help: inert(optional(text(1000))),
  unit: inert(optional(text(20))),
  live: inert(optional(LIVE_INPUT, 'What moves it, in place of its value.')),
  uniform: optional(codeName, 'Of a code material: the uniform that it is, which gives it its name, type, range and words.'),
  choices: inert(optional(list(text(60, 1), 1, 64))),
  image: optional(identifier, 'Of type image: which of the material’s images it shows.'),
});

export const MATERIAL_CODE = object({
  text: described(text(LONGEST_SOURCE), 'What paints the pixels, and all else of a material with `paint`.'),
  vertices: optional(text(LONGEST_SOURCE), 'The vertex stage of a whole program.'),
});

export const OUTLINE = object({
  method: oneOf(OUTLINE_METHODS),
  width: inert(described(number(0, 100), 'CSS pixels of the full-size picture, or metres.')),
  unit: inert(oneOf(OUTLINE_UNITS)),
  hidden: inert(described(flag, 'Also seen through what stands in front.')),
});

export const VARIANT = object({ name, order: number(), values: byId(inletValue, 1000) });

export const parameters = byId(PARAMETER, 1000);
export const groups = byId(NODE_GROUP, 1000);
export const images = byId(IMAGE, 256);

export const MATERIAL = object({
  ...head('brelvin-material', MATERIAL_VERSION),
  surface: described(GRAPH, 'Empty where there is code.'),
  code: optional(MATERIAL_CODE, 'Shading code in place of the graph.'),
  groups,
  parameters,
  images,
  outline: optional(OUTLINE),
  opacity: optional(oneOf(OPACITY_MODES), 'How what runs into the dock’s opacity is used; blend when absent.'),
  variants: inert(byId(VARIANT, 200)),
  silenced: inert(
    described(record(flag, 10_000, '^[A-Za-z][A-Za-z0-9_ /.-]{0,200}$'), 'Checks switched off for a place, as "check place".'),
  ),
  notes: inert(text(100_000)),
  seenIn: inert(described(object({ set: optional(documentId), rig: optional(documentId) }), 'The set and light rig it was last seen in.')),
});

export type ParameterType = (typeof PARAMETER_TYPES)[number];
export type OpacityMode = (typeof OPACITY_MODES)[number];

/** A value under a name of its own, shown as a control; changing it never compiles. Graphs have numbers and colours. */
export interface MaterialParameter extends TypeOf<typeof PARAMETER> {}

/** The text of a material that is written as code instead of drawn as a graph. */
export interface MaterialCode extends TypeOf<typeof MATERIAL_CODE> {}

/** Parameter values kept under a name; a parameter that is not listed stays as it is. */
export interface Variant extends TypeOf<typeof VARIANT> {}

/** A line round what wears the material; its colour comes from the dock. */
export interface Outline extends TypeOf<typeof OUTLINE> {}

export interface Material extends TypeOf<typeof MATERIAL> {}

import type { Expression } from '../ir/ir';
import type { Program, StageProgram } from '../ir/program';
import { expressionsOf, operands, walkStatements } from '../ir/walk';

/**
 * What a program reads, by how often it changes: with the picture, with what a part wears (or with each use of a program that is
 * drawn over a whole target), with the part, from pass to pass. A group's place here is its number on the device.
 */
export const BINDING_GROUPS = ['picture', 'own', 'part', 'pass'] as const;
export type BindingGroup = (typeof BINDING_GROUPS)[number];

export interface TextureBinding {
  readonly name: string;
  readonly cube: boolean;
  /** Read pixel by pixel alone, never between pixels: depths and 32-bit floats can be read so on every device. */
  readonly fetched: boolean;
}
/** The resources of one group, in the order in which they are bound: blocks, then textures. */
export interface GroupLayout {
  /** Equal for equal layouts. */
  readonly key: string;
  readonly blocks: readonly string[];
  readonly textures: readonly TextureBinding[];
}
/** Of each group of `BINDING_GROUPS`, what both stages of a program read. */
export type ProgramLayout = readonly GroupLayout[];

/** What the library's programs share; everything else is a program's own. */
const GROUP_OF: ReadonlyMap<string, BindingGroup> = new Map([
  ...['Frame', 'Lights', 'Inspect', 'shadowAtlas', 'nearOcclusion', 'environmentCube', 'splitSum'].map(
    (name) => [name, 'picture'] as const,
  ),
  ...['sceneDistance', 'sceneBehind', 'sceneThrough', 'fieldRecord'].map((name) => [name, 'picture'] as const),
  ['Object', 'part'],
  ['Peek', 'pass'],
  ['Caster', 'pass'],
]);

export function groupLayout(blocks: readonly string[], textures: readonly TextureBinding[] = []): GroupLayout {
  const key = [
    ...blocks,
    ...textures.map(({ name, cube, fetched }) => `${cube ? 'cube' : 'flat'}${fetched ? ' fetched' : ''} ${name}`),
  ].join();
  return { key, blocks, textures };
}

/** Where something is bound: its group, its number there, and for an image the number of its sampler, if it needs one. */
export interface BindingPlace {
  readonly group: number;
  readonly binding: number;
  readonly sampler?: number;
}

/** The places of a program's blocks and images by their names: in each group blocks, then images, each before its sampler. */
export function bindingsOf(layout: ProgramLayout): ReadonlyMap<string, BindingPlace> {
  const places = new Map<string, BindingPlace>();
  layout.forEach(({ blocks, textures }, group) => {
    blocks.forEach((name, binding) => places.set(name, { group, binding }));
    let next = blocks.length;
    for (const { name, fetched } of textures) {
      places.set(name, { group, binding: next, ...(fetched ? {} : { sampler: next + 1 }) });
      next += fetched ? 1 : 2;
    }
  });
  return places;
}

export function layoutOf({ vertex, fragment }: Program): ProgramLayout {
  const names = (of: (stage: StageProgram) => readonly { readonly name: string }[]): string[] =>
    [...new Set([...of(vertex), ...of(fragment)].map(({ name }) => name))].sort();
  const blocks = names((stage) => stage.blocks);
  const samplers = names((stage) => stage.samplers);
  const cubes = new Set(
    [...vertex.samplers, ...fragment.samplers]
      .filter(({ type }) => type.kind === 'sampler' && type.name === 'samplerCube')
      .map(({ name }) => name),
  );
  const filtered = new Set([...readBetweenPixels(vertex), ...readBetweenPixels(fragment)]);
  return BINDING_GROUPS.map((group) => {
    const here = (name: string): boolean => (GROUP_OF.get(name) ?? 'own') === group;
    return groupLayout(
      blocks.filter(here),
      samplers.filter(here).map((name) => ({ name, cube: cubes.has(name), fetched: !filtered.has(name) })),
    );
  });
}

const BY_PIXEL = new Set(['texelFetch', 'texelFetchOffset', 'textureSize']);

/** Images that a stage reads otherwise than pixel by pixel, or hands to a function. */
function readBetweenPixels({ functions }: StageProgram): ReadonlySet<string> {
  const found = new Set<string>();
  const visit = (expression: Expression): void => {
    if (expression.op === 'reference' && expression.scope === 'global' && expression.type.kind === 'sampler') found.add(expression.name);
    const inside = operands(expression);
    (expression.op === 'builtin' && BY_PIXEL.has(expression.name) ? inside.slice(1) : inside).forEach(visit);
  };
  for (const { body } of functions) walkStatements(body, (statement) => expressionsOf(statement).forEach(visit));
  return found;
}

import type { Program, StageProgram } from '../ir/program';

/**
 * What a program reads, by how often it changes: with the picture, with what a part wears (or with each use of a program that is
 * drawn over a whole target), with the part, from pass to pass. A group's place here is its number on the device.
 */
export const BINDING_GROUPS = ['picture', 'own', 'part', 'pass'] as const;
export type BindingGroup = (typeof BINDING_GROUPS)[number];

export interface TextureBinding {
  readonly name: string;
  readonly cube: boolean;
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
  ...['sceneDistance', 'sceneBehind', 'sceneThrough'].map((name) => [name, 'picture'] as const),
  ['Object', 'part'],
  ['Peek', 'pass'],
  ['Caster', 'pass'],
]);

export function groupLayout(blocks: readonly string[], textures: readonly TextureBinding[] = []): GroupLayout {
  const key = [...blocks, ...textures.map(({ name, cube }) => `${cube ? 'cube' : 'flat'} ${name}`)].join();
  return { key, blocks, textures };
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
  return BINDING_GROUPS.map((group) => {
    const here = (name: string): boolean => (GROUP_OF.get(name) ?? 'own') === group;
    return groupLayout(
      blocks.filter(here),
      samplers.filter(here).map((name) => ({ name, cube: cubes.has(name) })),
    );
  });
}

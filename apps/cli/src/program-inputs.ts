import type { Material } from '@brelvin/contract';
import { BINDING_GROUPS, bindingsOf, typeName, type EmittedMaterial } from '@brelvin/core';

/** What the programs of a material read, for those who draw with them elsewhere. Words are of 4 bytes. */
export interface ProgramInputs {
  readonly target: string;
  /** Of each vertex, by location in WGSL, by name in GLSL. */
  readonly attributes: readonly string[];
  readonly blocks: readonly {
    readonly name: string;
    readonly group: number;
    readonly binding: number;
    /** How often it changes. */
    readonly changes: string;
    readonly words: number;
    readonly members: readonly { readonly name: string; readonly type: string; readonly word: number }[];
  }[];
  readonly images: readonly {
    readonly name: string;
    readonly group: number;
    readonly binding: number;
    readonly sampler?: number;
    readonly cube: boolean;
    /** What of the material it shows, where it is the material’s own. */
    readonly shows?: string;
  }[];
  /** Where a parameter's numbers stand in the block `Material`. */
  readonly parameters: readonly { readonly name: string; readonly type: string; readonly word: number }[];
}

export function programInputs({ program, blocks, slots, images }: EmittedMaterial, material: Material, target: string): ProgramInputs {
  const places = bindingsOf(program.layout);
  const placeOf = (name: string) => places.get(name) ?? { group: 0, binding: 0 };
  return {
    target,
    attributes: program.attributes,
    blocks: blocks
      .filter(({ name }) => places.has(name))
      .map(({ name, words, members }) => {
        const { group, binding } = placeOf(name);
        const written = [...members.values()].map((each) => ({ name: each.name, type: typeName(each.type), word: each.offset }));
        return { name, group, binding, changes: BINDING_GROUPS[group] ?? '', words, members: written };
      }),
    images: program.layout.flatMap(({ textures }) =>
      textures.map(({ name, cube }) => {
        const shown = images.find((each) => each.sampler === name);
        const image = shown?.image === undefined ? undefined : material.images[shown.image];
        return { name, ...placeOf(name), cube, ...(image && { shows: image.name }) };
      }),
    ),
    parameters: slots.flatMap(({ source, type, offset }) => {
      if (source.from !== 'parameter' && source.from !== 'halves') return [];
      return [{ name: material.parameters[source.parameter]?.name ?? source.parameter, type: typeName(type), word: offset }];
    }),
  };
}

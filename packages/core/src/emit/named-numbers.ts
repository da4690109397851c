import { MATERIAL_BLOCK, MATERIAL_VALUES, wordsOf, type Slot } from '../compile/slots';
import type { CompiledMaterial } from '../compile/compiled-material';
import { titleOfSource } from '../compile/slot-titles';
import type { MaterialSource } from '../document/material';
import { global, swizzle } from '../ir/build';
import type { Expression, UniformBlock } from '../ir/ir';
import { blockLayout } from '../ir/layout';
import { mapBody } from '../ir/map-body';
import type { Program, StageProgram } from '../ir/program';
import { componentCount, type Type } from '../ir/types';
import { mapOperands, walkBody } from '../ir/walk';
import { camelName } from '../language';
import { NameTable } from './name-table';

/**
 * The same programs as people read them: the material's numbers are members of their block by the names that they have in the
 * material, at the same places, instead of one array. Renaming would compile them anew, so devices are not given these.
 */
export function withNamedNumbers(compiled: CompiledMaterial, material: MaterialSource): CompiledMaterial {
  const { program, variants, slots, blocks } = compiled;
  const all = [program, ...Object.values(variants)];
  const named = nameSlots(slots, material, all);
  const block: UniformBlock = { name: MATERIAL_BLOCK, members: named.map(({ name, type }) => ({ name, type })) };
  // Numbers that are read in a way of their own have no names.
  if (!keepsPlaces(block, named) || all.some((each) => stagesOf(each).some((stage) => readsOtherwise(stage, named)))) return compiled;
  const change = (each: Program): Program => ({
    vertex: renamed(each.vertex, block, named),
    fragment: renamed(each.fragment, block, named),
  });
  return {
    ...compiled,
    program: change(program),
    variants: Object.fromEntries(Object.entries(variants).map(([name, each]) => [name, change(each)])),
    blocks: blocks.map((each) => (each.name === MATERIAL_BLOCK ? { ...blockLayout(block), words: each.words } : each)),
  };
}

interface NamedSlot {
  readonly name: string;
  readonly type: Type;
  readonly offset: number;
}

/** In the order in which they lie in the block. */
function nameSlots(slots: readonly Slot[], material: MaterialSource, programs: readonly Program[]): NamedSlot[] {
  const names = new NameTable(camelName, new Set(programs.flatMap((each) => stagesOf(each).flatMap(outerNames))));
  return [...slots]
    .sort((a, b) => a.offset - b.offset)
    .map(({ name, type, offset, source }) => ({ name: names.of(titleOfSource(source, material), name), type, offset }));
}

function stagesOf({ vertex, fragment }: Program): readonly StageProgram[] {
  return [vertex, fragment];
}

function outerNames({ blocks, structs, inputs, outputs, samplers, privates, functions }: StageProgram): string[] {
  const members = blocks.flatMap((each) => each.members);
  return [...blocks, ...members, ...structs, ...inputs, ...outputs, ...samplers, ...privates, ...functions].map(({ name }) => name);
}

/** Whether a block of these members has each where its slot is. */
function keepsPlaces(block: UniformBlock, named: readonly NamedSlot[]): boolean {
  if (named.length === 0) return false;
  const { members } = blockLayout(block);
  return named.every(({ name, offset }) => members.get(name)?.offset === offset);
}

function readsOtherwise(stage: StageProgram, named: readonly NamedSlot[]): boolean {
  let otherwise = false;
  for (const { body } of stage.functions)
    for (const statement of mapBody(body, (each) => byName(each, named)))
      walkBody([statement], (each) => {
        if (each.op === 'reference' && each.name === MATERIAL_VALUES) otherwise = true;
      });
  return otherwise;
}

function renamed(stage: StageProgram, block: UniformBlock, named: readonly NamedSlot[]): StageProgram {
  return {
    ...stage,
    blocks: stage.blocks.map((each) => (each.name === MATERIAL_BLOCK ? block : each)),
    functions: stage.functions.map((each) => ({ ...each, body: mapBody(each.body, (value) => byName(value, named)) })),
  };
}

/** An expression in which numbers are read by their names, wherever they are read whole or a part of one. */
function byName(expression: Expression, named: readonly NamedSlot[]): Expression {
  const inside = (each: Expression): Expression => byName(each, named);
  const read = readOf(expression);
  if (!read) return mapOperands(expression, inside);
  const [first = 0] = read.words;
  const slot = named.find(({ type, offset }) => offset <= first && first < offset + wordsOf(type));
  if (!slot) return mapOperands(expression, inside);
  const { name, type, offset } = slot;
  if (type.kind === 'array') {
    if (read.array) return global(name, type);
    const vector: Expression = {
      op: 'index',
      object: global(name, type),
      index: read.indexOf(Math.floor((first - offset) / 4)),
      type: type.element,
    };
    return read.components ? swizzle(vector, read.components) : vector;
  }
  const components = read.words.map((word) => word - offset);
  if (components.some((each) => each < 0 || each >= componentCount(type))) return expression;
  const whole = components.length === componentCount(type) && components.every((each, index) => each === index);
  return whole ? global(name, type) : swizzle(global(name, type), components);
}

interface Read {
  /** Of the block, in their order. */
  readonly words: readonly number[];
  readonly components?: readonly number[];
  /** A whole array, put together of its elements. */
  readonly array: boolean;
  readonly indexOf: (number: number) => Expression;
}

/** Which words of the block an expression reads, if it is a read and nothing else. */
function readOf(expression: Expression): Read | undefined {
  if (expression.op === 'swizzle') {
    const object = readOf(expression.object);
    const { components } = expression;
    return object && !object.components && !object.array
      ? { ...object, words: components.map((each) => (object.words[0] ?? 0) + each), components }
      : undefined;
  }
  if (expression.op === 'construct' && expression.type.kind === 'array') {
    const reads = expression.args.map(readOf);
    const [first] = reads;
    if (!first || reads.some((each, index) => each?.words[0] !== (first.words[0] ?? 0) + index * 4 || each.components)) return undefined;
    return { ...first, array: true };
  }
  if (expression.op !== 'index' || expression.object.op !== 'reference' || expression.object.name !== MATERIAL_VALUES) return undefined;
  const { index } = expression;
  if (index.op !== 'constant') return undefined;
  const [vector = 0] = index.value;
  return {
    words: [0, 1, 2, 3].map((each) => vector * 4 + each),
    array: false,
    indexOf: (number) => ({ ...index, value: [number] }),
  };
}

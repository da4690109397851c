import type { IrFunction } from '../ir/ir';
import { FLOAT, typeName, VEC2, VEC3, VEC4, type StructType, type Type } from '../ir/types';
import type { Documentation } from '../language';
import type { InletSpec, Meaning, OutletSpec } from './kind';
import { readInlet, readOutlet } from './read-kind';
import { isTakenApart } from './whole-structs';

/** Types that ribbons carry. */
const TYPES = new Set([FLOAT, VEC2, VEC3, VEC4].map(typeName));
const IMAGE = 'sampler2D';

/** The ports of a function that somebody wrote, or why it cannot be a node. */
export type FunctionPorts = { readonly inlets: readonly InletSpec[]; readonly outlets: readonly OutletSpec[] } | { readonly unfit: string };

/** @param documentation its comment; what it says of inlets and outlets counts, where it fits them */
export function portsOf({ parameters, result }: IrFunction, documentation?: Documentation): FunctionPorts {
  const odd = parameters.find(({ type, direction }) => direction !== 'in' || !(TYPES.has(typeName(type)) || typeName(type) === IMAGE));
  if (odd) return { unfit: `“${odd.name}” cannot become an inlet. Take a float, vec2, vec3, vec4 or sampler2D.` };
  const outlets = outletsOf(result, documentation);
  if (!outlets) return { unfit: 'The last function must give a float, vec2, vec3, vec4, Lit, or a struct of such.' };
  const told = new Map(
    tags(documentation, 'inlet')
      .flatMap((text) => readInlet(text) ?? [])
      .map((each) => [each.name, each]),
  );
  return { inlets: parameters.map(({ name, type }) => told.get(name) ?? inletOf(name, type)), outlets };
}

function tags(documentation: Documentation | undefined, name: string): string[] {
  return (documentation?.tags ?? []).filter((tag) => tag.name === name).map(({ text }) => text);
}

export const isColour = (name: string): boolean => /colou?r|tint|rgb/i.test(name);

function meaningOf(name: string, type: Type): Meaning {
  const size = typeName(type);
  if (size === IMAGE) return 'image';
  if (size === 'float') return 'number';
  if (size === 'vec2') return 'uv';
  return size === 'vec3' && isColour(name) ? 'colour' : 'vector';
}

function inletOf(name: string, type: Type): InletSpec {
  const meaning = meaningOf(name, type);
  const size = type.kind === 'vector' ? type.size : 1;
  const value = meaning === 'colour' ? [0.8, 0.8, 0.8] : Array<number>(size).fill(0);
  return { name, label: labelOf(name), meaning, default: { value }, help: '' };
}

/** `edgeWidth` is read as “Edge width”. */
export function labelOf(name: string): string {
  const words = name.replace(/_/g, ' ').replace(/([a-z])([A-Z])/g, (_, end: string, start: string) => `${end} ${start.toLowerCase()}`);
  return words.charAt(0).toUpperCase() + words.slice(1);
}

function outletsOf(result: Type, documentation?: Documentation): OutletSpec[] | undefined {
  const told = new Map(
    tags(documentation, 'outlet')
      .flatMap((text) => readOutlet(text) ?? [])
      .map((each) => [each.name, each]),
  );
  const named = (outlets: OutletSpec[] | undefined): OutletSpec[] | undefined => outlets?.map((each) => told.get(each.name) ?? each);
  if (isTakenApart(result)) return named(fieldsOf(result));
  if (typeName(result) === 'Lit') return named([{ name: 'result', label: 'Light', meaning: 'light', help: '' }]);
  if (typeName(result) === 'Field') return named([{ name: 'result', label: 'Field', meaning: 'field', help: '' }]);
  return TYPES.has(typeName(result)) ? named([{ name: 'result', label: 'Result', meaning: meaningOf('', result), help: '' }]) : undefined;
}

function fieldsOf({ fields }: StructType): OutletSpec[] | undefined {
  if (!fields.every(({ type }) => TYPES.has(typeName(type)))) return undefined;
  return fields.map(({ name, type }) => ({ name, label: labelOf(name), meaning: meaningOf(name, type), help: '' }));
}

/** Functions that come with kinds, by signature. */
export function functionsOf(kinds: Iterable<{ readonly functions?: readonly IrFunction[] }>): [string, IrFunction][] {
  return [...kinds].flatMap(({ functions = [] }) => functions.map((each): [string, IrFunction] => [each.signature, each]));
}

import type { Module } from '../ir/ir';
import { elaborate, elaborateAll, formatDiagnostic, type ElaboratedSource } from '../language';
import { CODE_KIND, GROUP_KIND, PARAMETER_KIND, POINTER_KIND, type Catalogue, type NodeKind } from './kind';
import { readKind } from './read-kind';
import { SHADER_SOURCES } from './shader-sources.generated';

const PROGRAMS = 'programs/';

/** The shader library, read once: its functions, and the node kinds they make. */
export interface Library extends Catalogue {
  readonly module: Module;
}

let loaded: Library | undefined;

/** @throws SyntaxError when the library itself has an error, which its own tests rule out */
export function library(): Library {
  loaded ??= readLibrary(SHADER_SOURCES.filter(([path]) => !path.startsWith(PROGRAMS)));
  return loaded;
}

/**
 * A whole program of the library (`programs/NAME.glsl`) on top of the library's declarations.
 *
 * @throws RangeError when there is no such program
 */
export function libraryProgram(name: string): Module {
  return programOn(library().module, name);
}

/** The text of a file of the shader library, by its path; nothing for what is none. */
export function libraryText(path: string): string | undefined {
  return SHADER_SOURCES.find(([each]) => each === path)?.[1];
}

/** What stands outside of functions, in the one way in which the library writes it; members of blocks are indented. */
const OUTSIDE = /^(?:struct (\w+)|uniform (\w+) \{|(?:flat )?(?:in|out|uniform) \w+ (\w+)|\w+ (\w+)\(|  \w+ (\w+)(?:\[\d+\])?;)/gm;

let taken: ReadonlySet<string> | undefined;

/** Names that the library's programs use besides the library's own: what is linked with them must keep clear of these. */
export function programNames(): ReadonlySet<string> {
  taken ??= new Set(
    SHADER_SOURCES.filter(([path]) => path.startsWith(PROGRAMS)).flatMap(([, text]) =>
      [...text.matchAll(OUTSIDE)].flatMap((match) => match.slice(1).filter(Boolean)),
    ),
  );
  return taken;
}

let placed: Module | undefined;

/**
 * A program for the vertices of meshes, on top of what all of those begin with.
 *
 * @throws RangeError when there is no such program
 */
export function vertexProgram(name: string): Module {
  placed ??= libraryProgram('placed_vertex');
  return programOn(placed, name);
}

function programOn(module: Module, name: string): Module {
  const source = SHADER_SOURCES.find(([path]) => path === `${PROGRAMS}${name}.glsl`);
  if (!source) throw new RangeError(`the shader library has no program ${name}`);
  return faultless(elaborate(source[0], source[1], module)).module;
}

function readLibrary(sources: readonly (readonly [string, string])[]): Library {
  const { module, documentation } = faultless(elaborateAll(sources));
  const functions = [...module.functions.values()];
  const kinds = new Map<string, NodeKind>();
  for (const [signature, comment] of documentation) {
    const { name, parameters } = module.functions.get(signature) ?? {};
    const first = functions.filter((each) => each.signature === signature);
    const others = functions.filter(
      (each) => each.name === name && each.signature !== signature && each.parameters.length === parameters?.length,
    );
    const kind = readKind(comment, [...first, ...others]);
    if (!kind) continue;
    const shorter = functions.filter((each) => each.name === name && each.parameters.length < (parameters?.length ?? 0));
    kinds.set(kind.id, kind.features ? { ...kind, featureless: shorter.map((each) => each.signature) } : kind);
  }
  kinds.set(PARAMETER_KIND, PARAMETER);
  kinds.set(GROUP_KIND, GROUP);
  kinds.set(POINTER_KIND, POINTER);
  kinds.set(CODE_KIND, CODE);
  return { module, kinds };
}

function faultless(source: ElaboratedSource): ElaboratedSource {
  if (source.diagnostics.length > 0) throw new SyntaxError(source.diagnostics.map(formatDiagnostic).join('\n'));
  return source;
}

const PARAMETER: NodeKind = {
  id: PARAMETER_KIND,
  rev: 1,
  title: 'Parameter',
  family: 'Numbers',
  help: 'A number or colour under a name of its own, to be changed from the parameters panel.',
  source: 'The material’s own list of parameters',
  words: ['input', 'control', 'slider', 'exposed', 'named value', 'uniform'],
  inlets: [],
  outlets: [{ name: 'result', label: 'Value', meaning: 'number', help: '' }],
  overloads: [],
};

const POINTER: NodeKind = {
  id: POINTER_KIND,
  rev: 1,
  title: 'Pointer over part',
  family: 'Where',
  help: '1 while the pointer is over this part of the mesh, 0 otherwise; it comes and goes within a quarter of a second.',
  source: 'Exponential easing towards whether the pointer is over the part',
  words: ['hover', 'mouse', 'cursor', 'touch', 'over'],
  inlets: [],
  outlets: [{ name: 'result', label: 'Over', meaning: 'fraction', help: '0…1.' }],
  overloads: [],
};

const CODE: NodeKind = {
  id: CODE_KIND,
  rev: 1,
  title: 'Code',
  family: 'Code',
  help: 'A function of your own, typed into the node: what it takes are inlets, what it gives are outlets.',
  source: 'The function in the node, in either open shading language: GLSL ES 3.00 or WGSL',
  words: ['function', 'expression', 'formula', 'script', 'glsl', 'wgsl', 'custom', 'write'],
  inlets: [],
  outlets: [],
  overloads: [],
};

const GROUP: NodeKind = {
  id: GROUP_KIND,
  rev: 1,
  title: 'Group',
  family: 'Groups',
  help: 'Several nodes under one title. Open it to see inside.',
  source: 'Made of the nodes inside it',
  words: [],
  inlets: [],
  outlets: [],
  overloads: [],
};

import type { OpacityMode } from '@brelvin/contract';
import { libraryProgram, vertexProgram } from '../catalogue/library';
import { call, global } from '../ir/build';
import type { IrFunction, Module } from '../ir/ir';
import { forVertexStage } from '../ir/for-vertex-stage';
import { VEC4 } from '../ir/types';
import { VERTEX_GAP } from './vertex-gap';

/**
 * Programs of a surface besides the plain one: under shadows, occluded by what is near as well, taken apart, its outline grown, the colour of its lines.
 * What has a shape of its own, or holes, also throws its own shadow and is its own way off; a shape has its own edges and
 * wires.
 */
export type SurfaceVariant = 'shadowed' | 'occluded' | 'inspect' | 'hull' | 'lines' | 'caster' | 'distance' | 'cover' | 'edges' | 'wires';
/** Of a program of outlets: gives others than the first few; see `outletVariant`. */
export type OutletVariant = `outlets${number}`;
export type ProgramVariant = SurfaceVariant | OutletVariant;

/** Programs besides the plain one, by what they are for. */
export type Variants<Code> = Readonly<Partial<Record<SurfaceVariant, Code>> & Record<OutletVariant, Code>>;

/** All programs that a material's painters can be linked into. */
export type SurfaceProgram = 'plain' | 'outlets' | SurfaceVariant;

type FunctionOverride = readonly (readonly [plain: string, own: string])[];

/** Shadow code costs much even where no light throws one. */
const UNSHADED: FunctionOverride = [['shadowOf(int,vec3)', 'unshaded(int,vec3)']];

/** Functions of lighting that the inspecting program has its own of. */
const INSPECTED: FunctionOverride = [
  ['seenBase(vec3)', 'inspectedBase(vec3)'],
  ['ambientHere(vec3)', 'inspectedAmbient(vec3)'],
  ['ambientOfDrawing(vec3)', 'inspectedPlainAmbient(vec3)'],
  ['mirroredHere(vec3,float)', 'inspectedMirror(vec3,float)'],
  ['lightsInUse()', 'inspectedLights()'],
  ['seenShadow(float)', 'inspectedShadow(float)'],
];

/** Light from all around is less where surfaces are near. */
const OCCLUDED: FunctionOverride = [
  ['ambientHere(vec3)', 'occludedAmbient(vec3)'],
  ['mirroredHere(vec3,float)', 'occludedMirror(vec3,float)'],
];

const NO_SHAPE: FunctionOverride = [['shapeVertex()', 'keepVertex()']];
const NOTHING_CARRIED: FunctionOverride = [['carryToPixels()', 'carryNothing()']];

const FRAGMENTS: Readonly<Record<SurfaceProgram, readonly [program: string, exchange?: FunctionOverride]>> = {
  plain: ['surface.frag', UNSHADED],
  shadowed: ['surface.frag'],
  occluded: ['surface.frag', OCCLUDED],
  inspect: ['inspect.frag', INSPECTED],
  outlets: ['outlets.frag'],
  hull: ['outline.frag', UNSHADED],
  lines: ['outline.frag', UNSHADED],
  caster: ['shadow.frag'],
  distance: ['scene_distance.frag'],
  cover: ['cover.frag'],
  edges: ['edge_surface.frag'],
  wires: ['wires.frag'],
};

const VERTICES: Partial<Record<SurfaceProgram, string>> = { hull: 'outline.vert', caster: 'shadow.vert', wires: 'wires.vert' };

const made = new Map<string, Module>();

function once(key: string, make: () => Module): Module {
  const known = made.get(key);
  if (known) return known;
  const module = make();
  made.set(key, module);
  return module;
}

const OPACITY: Readonly<Record<OpacityMode, FunctionOverride>> = {
  cut: [['seenWhole(vec3,float)', 'seenCut(vec3,float)']],
  blend: [['seenWhole(vec3,float)', 'seenOver(vec3,float)']],
  unsorted: [['seenWhole(vec3,float)', 'seenGathered(vec3,float)']],
  add: [['seenWhole(vec3,float)', 'seenAdded(vec3,float)']],
};

/** A program's pixel stage, still without the material's painters. */
export function fragmentModule(program: SurfaceProgram, opacity?: OpacityMode): Module {
  const [name, exchange = []] = FRAGMENTS[program];
  return once(`${name} ${program} ${opacity ?? ''}`, () =>
    withOwn(libraryProgram(name), [...exchange, ...(opacity ? OPACITY[opacity] : [])]),
  );
}

/** Programs whose pixels are looked at, so that a loop that was broken off must be seen in them. */
const PICTURES: ReadonlySet<SurfaceProgram> = new Set(['plain', 'shadowed', 'occluded']);

/** The same for a material that counts the steps of its loops: where they ran out, it paints stripes. */
export function countingFragmentModule(program: SurfaceProgram, opacity?: OpacityMode): Module {
  const module = fragmentModule(program, opacity);
  if (!PICTURES.has(program)) return module;
  return once(`counting ${program} ${opacity ?? ''}`, () => {
    const [main, marks] = ['main()', 'brokenOff(vec4)'].map((signature) => module.functions.get(signature));
    if (!main || !marks) throw new ReferenceError('the shader library must define main() and brokenOff(vec4)');
    const pixel = global('pixel', VEC4);
    const marked: IrFunction = { ...main, body: [...main.body, { op: 'assign', target: pixel, value: call(marks, [pixel]) }] };
    return { ...module, functions: new Map(module.functions).set(main.signature, marked) };
  });
}

/** The pixel stage of a program of the frame's own, for meshes of whatever material. */
export function plainFragmentModule(name: 'shadow.frag' | 'scene_distance.frag'): Module {
  return once(name, () => withOwn(libraryProgram(name), [['paintOpacity()', 'solid()']]));
}

/** The pixel stage of a floor of which only shadow is seen; occluded or not is the frame's to say. */
export function groundModule(): Module {
  return once('ground_shadow.frag', () => libraryProgram('ground_shadow.frag'));
}

/**
 * A program's vertex stage. With a shape it wants `shapeOffset`, and `carryToPixels` where something is carried.
 *
 * @param whole the stage is the user's own, `codeVertices`, wherever the program does not place vertices in a way of its own
 */
export function vertexModule(
  program: SurfaceProgram,
  { shaped, carries, whole = false }: { shaped: boolean; carries: boolean; whole?: boolean },
): Module {
  const name = VERTICES[program] ?? (whole ? 'code.vert' : 'surface.vert');
  const exchange = [...(shaped ? [] : NO_SHAPE), ...(carries ? [] : NOTHING_CARRIED)];
  return once(`${name} ${shaped} ${carries}`, () =>
    withOwn(forVertexStage(withOwn(vertexProgram(name), UNSHADED), shaped ? VERTEX_GAP : undefined), exchange),
  );
}

/** The vertex stage of a program of the frame's own, for meshes of whatever material. */
export function plainVertexModule(name: 'surface.vert' | 'shadow.vert' | 'wires.vert' | 'field_box.vert' | 'field_caster.vert'): Module {
  return once(`${name} false false`, () =>
    withOwn(forVertexStage(withOwn(vertexProgram(name), UNSHADED)), [...NO_SHAPE, ...NOTHING_CARRIED]),
  );
}

/** The vertex stage of most of them. */
export const PLAIN_VERTICES = (): Module => plainVertexModule('surface.vert');

/** A program in which some functions of the library are put in the place of others. */
function withOwn(module: Module, exchanged: FunctionOverride): Module {
  if (exchanged.length === 0) return module;
  const functions = new Map(module.functions);
  for (const [plain, own] of exchanged) {
    const given = functions.get(own);
    if (!given) throw new ReferenceError(`the shader library must define ${own}`);
    functions.set(plain, { ...given, name: plain.slice(0, plain.indexOf('(')), signature: plain });
  }
  return { ...module, functions };
}

import type { OpacityMode } from '@brelvin/contract';
import { functionsOf } from '../catalogue/function-kind';
import type { Declare, Expression, Global, IrFunction, Module } from '../ir/ir';
import { blockLayout, type BlockLayout } from '../ir/layout';
import { countsSteps, RAN_OUT, STEP_COUNTERS } from '../ir/loop-guard';
import { dropDead, returning } from '../ir/passes';
import { linkProgram, type Program } from '../ir/program';
import { fasterRate, type Rate } from '../ir/rate';
import { VEC3 } from '../ir/types';
import { walkBody, walkExpression } from '../ir/walk';
import { recordedProgram } from './recorded-program';
import { assembleLine, packedLine, samplersOf, sumFunctions, type AssembledLine } from './assemble-line';
import type { BakedInlet, LoweredStage, SharedLowering } from './lower';
import type { Slot } from './slots';
import { countingFragmentModule, fragmentModule, vertexModule, type SurfaceProgram } from './surface-programs';

/** What the values of slots that are computed once per frame need. */
export interface FrameComputation {
  readonly line: readonly Declare[];
  readonly functions: ReadonlyMap<string, IrFunction>;
}

/** Both stages of a graph, assembled: ready to be linked into programs that all read one block of numbers. */
export class SurfaceLinker {
  readonly rates: Readonly<Record<string, Rate>>;
  readonly frame: FrameComputation;
  /** The pixel stage's line, and its results in the order in which they were lowered. */
  readonly pixel: Pick<AssembledLine, 'line' | 'results' | 'sums'>;
  private readonly vertex?: Pick<AssembledLine, 'line' | 'results' | 'sums'>;
  private readonly module: Module;

  /** @param vertex its first result is the offset, the others are what is carried, in order */
  constructor(
    private readonly shared: SharedLowering,
    pixel: LoweredStage,
    vertex: LoweredStage | undefined,
    /** Whether the first result of the vertex stage moves vertices. */
    readonly shaped: boolean,
  ) {
    const pixels = assembleLine(pixel, shared, 'pixel');
    const vertices = vertex && assembleLine(vertex, shared, 'vertex');
    const reads = shared.slots.packedReads();
    this.pixel = packedLine(pixels, reads);
    this.vertex = vertices && packedLine(vertices, reads);
    this.module = pixels.module;
    const frameLine = [...pixels.frameLine, ...(vertices?.frameLine ?? [])];
    this.frame = { line: frameLine, functions: this.reachedFunctions(frameLine) };
    const rates: Record<string, Rate> = { ...pixels.rates };
    for (const [node, rate] of Object.entries(vertices?.rates ?? {})) rates[node] = fasterRate(rate, rates[node] ?? rate);
    for (const { node } of shared.carried) rates[node] = 'vertex';
    this.rates = rates;
  }

  get slots(): readonly Slot[] {
    return this.shared.slots.slots;
  }

  get baked(): readonly BakedInlet[] {
    return this.shared.baked;
  }

  get images(): SharedLowering['images'] {
    return this.shared.images;
  }

  /** A function of the pixel stage that gives one of its results. */
  painter(name: string, result: Expression): IrFunction {
    return painterOf(name, this.pixel.line, result);
  }

  /** The functions that painters may call. */
  get functions(): ReadonlyMap<string, IrFunction> {
    return new Map([...this.module.functions, ...sumFunctions(this.pixel.sums, this.shared.library)]);
  }

  /** One of the programs, with these painters in the pixel stage. */
  link(program: SurfaceProgram, painters: readonly IrFunction[], opacity?: OpacityMode): Program {
    const vertex = vertexModule(program, { shaped: this.shaped, carries: this.shared.carried.length > 0 });
    return linkProgram(this.withVertexPainters(vertex), this.withPainters(this.base(program, opacity), this.pixel.sums, painters));
  }

  /** The same over a part of a field, which has no vertices: what they would carry is computed at each pixel. */
  linkRecorded(program: SurfaceProgram, painters: readonly IrFunction[]): Program {
    const carry = this.carryPainter();
    const module = this.withPainters(this.base(program), this.pixel.sums, carry ? [...painters, carry] : painters);
    const sums = this.vertex ? sumFunctions(this.vertex.sums, this.shared.library) : [];
    const privates = this.shared.carried.map(({ global }): [string, Global] => [global.name, { ...global, storage: 'private' }]);
    return recordedProgram({
      ...module,
      globals: new Map([...module.globals, ...privates]),
      functions: new Map([...sums, ...module.functions]),
    });
  }

  private base(program: SurfaceProgram, opacity?: OpacityMode): Module {
    return this.counts ? countingFragmentModule(program, opacity) : fragmentModule(program, opacity);
  }

  private withVertexPainters(module: Module): Module {
    const [offset] = this.vertex?.results ?? [];
    const carry = this.carryPainter();
    if (!this.vertex || !offset || !carry) return module;
    const { line } = this.vertex;
    const painters = [...(this.shaped ? [painterOf('shapeOffset', line, offset)] : []), ...(this.shared.carried.length > 0 ? [carry] : [])];
    const outs = this.shared.carried.map(({ global }): [string, Global] => [global.name, { ...global, storage: 'out' }]);
    const linked = this.withPainters(module, this.vertex.sums, painters);
    return { ...linked, globals: new Map([...linked.globals, ...outs]) };
  }

  /** The function that computes what is carried; nothing where nothing is moved and nothing carried. */
  private carryPainter(): IrFunction | undefined {
    const [offset, ...carried] = this.vertex?.results ?? [];
    if (!this.vertex || !offset) return undefined;
    const { line } = this.vertex;
    const assignments = carried.flatMap((value, index): IrFunction['body'] => {
      const target = this.shared.carried[index]?.global;
      return target ? [{ op: 'assign', target: { op: 'reference', scope: 'global', name: target.name, type: target.type }, value }] : [];
    });
    return {
      ...painterOf('carryToPixels', [], offset),
      result: { kind: 'void' },
      body: [...dropDead(line, carried), ...assignments],
    };
  }

  private withPainters(module: Module, sums: AssembledLine['sums'], painters: readonly IrFunction[]): Module {
    const { slots, images, carried } = this.shared;
    const block = slots.block();
    const blockGlobal = slots.blockGlobal();
    const own = this.ownFunctions();
    const ranOut: [string, IrFunction][] = this.counts ? [[RAN_OUT.signature, RAN_OUT]] : [];
    const ins = carried.map(({ global }): [string, Global] => [global.name, global]);
    return {
      ...module,
      globals: new Map([
        ...module.globals,
        ...samplersOf(images),
        ...ins,
        ...[blockGlobal, ...STEP_COUNTERS].map((each): [string, Global] => [each.name, each]),
      ]),
      blocks: new Map(module.blocks).set(block.name, block),
      functions: new Map([
        ...module.functions,
        ...own,
        ...ranOut,
        ...sumFunctions(sums, this.shared.library),
        ...painters.map((each): [string, IrFunction] => [each.signature, each]),
      ]),
    };
  }

  /** Whether functions that nodes brought along count the steps of their loops. */
  private get counts(): boolean {
    return countsSteps(this.ownFunctions().map(([, each]) => each));
  }

  /** Functions that nodes brought along. */
  private ownFunctions(): [string, IrFunction][] {
    return functionsOf([...this.shared.resolved.nodes.values()].map(({ kind }) => kind));
  }

  private reachedFunctions(line: readonly Declare[]): ReadonlyMap<string, IrFunction> {
    const found = new Map<string, IrFunction>();
    const visit = (expression: Expression): void => {
      if (expression.op !== 'call' || found.has(expression.callee)) return;
      const callee = this.module.functions.get(expression.callee);
      if (!callee) return;
      found.set(callee.signature, callee);
      walkBody(callee.body, visit);
    };
    for (const { value } of line) if (value) walkExpression(value, visit);
    return found;
  }
}

/** Stands for no offset where values are only carried. */
export const STAYS: Expression = { op: 'constant', type: VEC3, value: [0, 0, 0] };

function painterOf(name: string, line: AssembledLine['line'], result: Expression): IrFunction {
  return {
    signature: `${name}()`,
    name,
    parameters: [],
    result: result.type,
    body: returning(dropDead(line, [result]), result),
    origin: { path: 'graph' },
  };
}

/** Samplers of what was drawn before. */
const THROUGH = 'sceneThrough';
const BEHIND = new Set(['sceneDistance', 'sceneBehind', THROUGH]);

/** What a program reads of what the frame keeps for all surfaces. */
export interface SystemReads {
  /** What was drawn before its surface. */
  readonly readsSceneColour: boolean;
  /** Light passes through it: what was drawn before is seen, blurred, through both of its sides. */
  readonly transmits: boolean;
  /** The environment, blurred by how rough what mirrors it is. */
  readonly mirrors: boolean;
  /** Normals that all vertices in one place share. */
  readonly welded: boolean;
}

/** What a program reads of what the frame keeps for all surfaces. */
export function systemReads({ vertex, fragment }: Program): SystemReads {
  const names = new Set(fragment.samplers.map(({ name }) => name));
  return {
    readsSceneColour: [...BEHIND].some((name) => names.has(name)),
    transmits: names.has(THROUGH),
    mirrors: names.has('environmentCube'),
    welded: vertex.inputs.some(({ name }) => name === 'meshWelded'),
  };
}

export function programBlocks(program: Program): BlockLayout[] {
  const blocks = new Map([...program.vertex.blocks, ...program.fragment.blocks].map((block) => [block.name, block]));
  return [...blocks.values()].map(blockLayout);
}

const CLOCK = 'frameTime';

/** Whether a program's pictures change with the clock. */
export function readsClock(program: Program, frame: FrameComputation): boolean {
  let reads = false;
  const visit = (expression: Expression): void => {
    if (expression.op === 'reference' && expression.name === CLOCK) reads = true;
  };
  for (const declared of [...program.vertex.functions, ...program.fragment.functions, ...frame.functions.values()])
    walkBody(declared.body, visit);
  return reads;
}

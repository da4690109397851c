import type { RibbonType } from '@brelvin/contract';
import { functionOfKind } from '../catalogue/function-library';
import {
  CARRY_KIND,
  POINTER_KIND,
  REGION_KIND,
  THIS_LIGHT_KIND,
  type Catalogue,
  type InletDefault,
  type InletSpec,
} from '../catalogue/kind';
import type { MaterialSource } from '../document/material';
import { DOCK } from '../document/graph';
import { call, constant, construct, float, global, local, member, signatureOf } from '../ir/build';
import type { Declare, Expression, Global, IrFunction, Module } from '../ir/ir';
import { INT, sameType, VEC3, VEC4, type Type } from '../ir/types';
import { walkExpression } from '../ir/walk';
import { LightLoops, lightSum, sumFunction, LIGHT_INDEX, type LightSum } from './light-loops';
import { Regions } from './regions';
import { conversion, irType, outletValue, type ConversionFunctions, type RibbonStructs } from './ribbon-type';
import type { ResolvedGraph, ResolvedInlet, ResolvedNode } from './resolve';
import type { NodeHome } from './flatten';
import { constantOf, documentNumbers, SlotAllocator, slotNumbers, type SlotSource } from './slots';

const FIRST_UV = 'uv';
const SECOND_UV = 'secondUv';
/** Repeats, shifts and turns images of either set of UVs. */
const TRANSFORM_KIND = 'uvTransform';

/** An inlet whose number is part of the program. */
export interface BakedInlet {
  readonly home: NodeHome;
  readonly inlet: string;
}

/** One stage's part of a graph: a line of declarations, sources first, and what comes of it. */
export interface LoweredStage {
  readonly line: readonly Declare[];
  /** Sums over the lights, which the line and each other call. */
  readonly sums: readonly LightSum[];
  readonly results: readonly Expression[];
  /** Locals that are computed once for each light. */
  readonly perLight: ReadonlySet<string>;
  /** The local that holds a node's value, by node. */
  readonly locals: ReadonlyMap<string, string>;
}

/** A value on its way from the vertices to the pixels: the pixel stage reads the global, the vertex stage computes the value. */
export interface Carried {
  readonly global: Global;
  readonly node: string;
}

/** A sampler of a program, and which of the material's images it shows; without one a placeholder. */
export interface ProgramImage {
  readonly sampler: string;
  readonly image?: string;
  /** Six images, read by direction. */
  readonly cube?: boolean;
}

/** What both stages share: numbers, images, and what goes from one to the other. */
export class SharedLowering {
  readonly slots = new SlotAllocator();
  /** Inlets whose numbers had no room left and are part of the program: changing one compiles. */
  readonly baked: BakedInlet[] = [];
  /** Samplers of the program, each with the image it shows; without one a placeholder. */
  readonly images: ProgramImage[] = [];
  readonly carried: Carried[] = [];
  readonly loops: LightLoops;
  readonly regions = new Regions();

  constructor(
    readonly resolved: ResolvedGraph,
    readonly material: MaterialSource,
    readonly catalogue: Catalogue,
    readonly library: Module,
  ) {
    this.loops = new LightLoops(resolved.flat);
  }
}

/** What a stage has to compute besides inlets of the dock: an outlet, as four numbers. */
export interface WantedOutlet {
  readonly node: string;
  readonly outlet: string;
}

/** Turns a part of a graph into a line of declarations for one stage. */
export class StageLowering {
  private readonly line: Declare[] = [];
  private readonly sums: LightSum[] = [];
  /** What is computed for each light, by loop. */
  private readonly turns = new Map<string, Declare[]>();
  private readonly locals = new Map<string, string>();
  private readonly values = new Map<string, Expression>();
  private readonly names = new Map<string, number>();
  private readonly surfaces = new Map<string, Expression>();
  private readonly functions: ConversionFunctions;
  private readonly structs: RibbonStructs;
  private readonly resolved: ResolvedGraph;
  private readonly material: MaterialSource;
  private readonly catalogue: Catalogue;
  private readonly library: Module;

  /** @param reached the nodes that this stage computes */
  constructor(
    private readonly shared: SharedLowering,
    private readonly stage: 'pixel' | 'vertex',
    reached: ReadonlySet<string>,
  ) {
    const { resolved, material, catalogue, library } = shared;
    [this.resolved, this.material, this.catalogue, this.library] = [resolved, material, catalogue, library];
    const [lit, field] = [library.structs.get('Lit'), library.structs.get('Field')];
    if (!lit || !field) throw new ReferenceError('the shader library must define Lit and Field');
    this.structs = { lit, field };
    const caller = (name: string, type: Type) => (value: Expression) => call(this.libraryFunction(name, type), [value]);
    this.functions = {
      luminance: caller('luminanceOf', VEC3),
      total: caller('totalLight', lit),
      emitted: caller('emitted', VEC3),
      unnamed: (value) => construct(field, [value, constant(INT, [0])]),
    };
    for (const node of resolved.nodes.values()) if (reached.has(node.id)) this.node(node);
  }

  /** What arrives at the dock. */
  dock(name: string): Expression {
    const inlet = this.resolved.dock.find((each) => each.spec.name === name);
    if (!inlet) throw new ReferenceError(`the dock has no inlet ${name}`);
    return this.inlet({ id: DOCK, home: { node: DOCK } }, inlet);
  }

  /** A node's first inlet, in the type that the node takes. */
  firstInlet(node: string): Expression {
    const found = this.resolved.nodes.get(node);
    const [inlet] = found?.inlets ?? [];
    if (!found || !inlet) throw new ReferenceError(`${node} has no inlet`);
    return this.inlet(found, inlet);
  }

  /** The value of an outlet, spread or filled up to four numbers; nothing where it has none at a point. */
  outlet({ node, outlet }: WantedOutlet): Expression | undefined {
    const source = this.values.get(node);
    const from = this.resolved.nodes.get(node);
    const given = from?.outlets[outlet];
    if (!source || !given || given === 'image' || given === 'cubeImage' || given === 'stops' || this.isPerLight(source)) return undefined;
    const value = from.port || !from.overload ? source : outletValue(source, outlet);
    if (given === 'field') return construct(VEC4, [member(value, 'distance')]);
    return given === 'vec2' ? construct(VEC4, [value, float(0), float(1)]) : conversion(given, 'vec4')?.build(value, this.functions);
  }

  finish(results: readonly Expression[]): LoweredStage {
    const { perLight } = this;
    return { line: this.line, sums: this.sums, results, perLight, locals: this.locals };
  }

  private libraryFunction(name: string, ...types: Type[]): IrFunction {
    const found = this.library.functions.get(signatureOf(name, types));
    if (!found) throw new ReferenceError(`the shader library must define ${signatureOf(name, types)}`);
    return found;
  }

  private node(resolved: ResolvedNode): void {
    const { id, kind, overload, node, port, inlets, outlets } = resolved;
    const loop = this.shared.loops.enter(resolved);
    if (port) {
      const ended = this.shared.loops.endedBy(resolved);
      if (ended === undefined) this.port(resolved);
      else this.sum(resolved, ended, loop);
      return;
    }
    if (!overload) {
      const source: SlotSource = kind.id === POINTER_KIND ? { from: 'pointer' } : { from: 'parameter', parameter: node?.parameter ?? '' };
      this.values.set(id, this.slot(irType(outlets['result'] ?? 'number', this.structs), source, { home: resolved.home, inlet: 'result' }));
      return;
    }
    if (kind.id === CARRY_KIND && this.stage === 'pixel') {
      this.values.set(id, this.carried(id, overload.result));
      return;
    }
    const args = inlets.map((inlet) => this.inlet(resolved, inlet));
    if (kind.id === THIS_LIGHT_KIND) args.push(LIGHT_INDEX);
    if (kind.id === REGION_KIND) args.push(constant(INT, [this.shared.regions.numberOf(resolved)]));
    this.values.set(id, this.declare(functionOfKind(kind.id) ?? kind.id, call(overload, args), id, loop));
  }

  private get perLight(): ReadonlySet<string> {
    return new Set([...this.turns.values()].flat().map((each) => each.name));
  }

  private isPerLight(value: Expression): boolean {
    let found = false;
    const { perLight } = this;
    walkExpression(value, (each) => {
      if (each.op === 'reference' && (perLight.has(each.name) || each.name === LIGHT_INDEX.name)) found = true;
    });
    return found;
  }

  /** Both stages' names may stand beside each other. */
  private get suffix(): string {
    return this.stage === 'vertex' ? 'v' : '';
  }

  private carried(node: string, type: Type): Expression {
    const { carried } = this.shared;
    const name = `carried${carried.length}`;
    carried.push({ node, global: { name, type, storage: 'in' } });
    return global(name, type);
  }

  /** Where a group that runs for each light ends: its outlet is the sum. Without a ribbon nothing adds up. */
  private sum(resolved: ResolvedNode, ended: string, loop: string | undefined): void {
    const [inlet] = resolved.inlets;
    if (!inlet?.ribbon) {
      this.port(resolved);
      return;
    }
    const context = { functions: this.library.functions };
    const sum = lightSum(
      `sumOverLights${this.sums.length + 1}${this.suffix}`,
      resolved.id,
      this.turns.get(ended) ?? [],
      this.inlet(resolved, inlet),
      context,
    );
    this.sums.push(sum);
    const args = sum.needed.map(({ name, type }) => local(name, type));
    this.values.set(resolved.id, this.declare('overLights', call(sumFunction(sum, this.library), args), resolved.id, loop));
  }

  /** What runs into a group or out of it takes the port's type; an open outlet gives the port's own value, or nothing. */
  private port(resolved: ResolvedNode): void {
    const [inlet] = resolved.inlets;
    const { port } = resolved;
    if (!inlet || !port) return;
    const numbers = port.value === undefined ? [0] : typeof port.value === 'number' ? [port.value] : port.value;
    if (inlet.ribbon) this.values.set(resolved.id, this.inlet(resolved, inlet));
    else {
      const source: SlotSource = { from: 'inlet', home: port.home, inlet: port.inlet, fallback: numbers };
      this.values.set(resolved.id, this.openValue(inlet.type, source, { home: port.home, inlet: port.inlet }));
    }
  }

  /** @param loop the path of the group for each of whose lights it is computed; once, without */
  private declare(base: string, value: Expression, path: string, loop?: string): Expression {
    const count = (this.names.get(base) ?? 0) + 1;
    this.names.set(base, count);
    const name = `${base}${count}${this.suffix}`;
    this.lineOf(loop).push({ op: 'declare', name, type: value.type, value, mutable: false, origin: { path } });
    this.locals.set(path, name);
    return local(name, value.type);
  }

  private lineOf(loop: string | undefined): Declare[] {
    if (loop === undefined) return this.line;
    const known = this.turns.get(loop);
    if (known) return known;
    const made: Declare[] = [];
    this.turns.set(loop, made);
    return made;
  }

  private inlet(at: Pick<ResolvedNode, 'id' | 'home' | 'node'>, { spec, type, ribbon }: ResolvedInlet): Expression {
    const wanted = irType(type, this.structs);
    if (type === 'image' || type === 'cubeImage') return this.image(at.node?.image, type);
    if (!ribbon) return this.openInlet(at, spec, type, wanted);
    const from = this.resolved.nodes.get(ribbon.from);
    const second = from && this.isOnSecondUv(at, spec) ? this.transformOfSecond(from) : undefined;
    const source = second ?? this.values.get(ribbon.from);
    const given = from?.outlets[ribbon.outlet];
    const found = given && conversion(given, type);
    if (!source || !found) throw new ReferenceError(`ribbon into ${at.id}.${spec.name} was not resolved`);
    const value = found.build(from?.port ? source : outletValue(source, ribbon.outlet), this.functions);
    return this.scaled(at, spec, value);
  }

  /** A map is multiplied by its number, where it has one. */
  private scaled({ home, node }: Pick<ResolvedNode, 'home' | 'node'>, { name, scales }: InletSpec, value: Expression): Expression {
    if (!scales || node?.factors?.[name] === undefined) return value;
    const factor = this.slot(value.type, { from: 'factor', home, inlet: name }, { home, inlet: name });
    return { op: 'binary', operator: '*', left: value, right: factor, type: value.type };
  }

  /** One sampler an image, however many nodes read it. */
  private image(image: string | undefined, type: 'image' | 'cubeImage'): Expression {
    const { images } = this.shared;
    const cube = type === 'cubeImage';
    let index = images.findIndex((each) => each.image === image && (each.cube ?? false) === cube);
    if (index < 0) index = images.push({ sampler: `image${images.length}`, image, ...(cube ? { cube } : {}) }) - 1;
    return global(`image${index}`, irType(type, this.structs));
  }

  private openInlet(at: Pick<ResolvedNode, 'id' | 'home' | 'node'>, spec: InletSpec, type: RibbonType, wanted: Type): Expression {
    const place: BakedInlet = { home: at.home, inlet: spec.name };
    if (!('surface' in spec.default)) {
      return this.openValue(type, { from: 'inlet', ...place, fallback: spec.default.value }, place);
    }
    if (at.node?.values[spec.name] !== undefined) return this.slot(wanted, { from: 'inlet', ...place, fallback: [0] }, place);
    return this.surface(this.isOnSecondUv(at, spec) ? { surface: SECOND_UV } : spec.default, wanted);
  }

  /** A number that is due as light is a grey emission, as a field a distance. */
  private openValue(type: RibbonType, source: SlotSource, place: BakedInlet): Expression {
    const whole = type === 'light' || type === 'field';
    const slot = this.slot(irType(whole ? 'number' : type, this.structs), source, place);
    return whole ? (conversion('number', type)?.build(slot, this.functions) ?? slot) : slot;
  }

  /** Whether an inlet wants the mesh's UV, and the image that its node reads lies on the second set. */
  private isOnSecondUv({ node }: Pick<ResolvedNode, 'node'>, spec: InletSpec): boolean {
    return 'surface' in spec.default && spec.default.surface === FIRST_UV && this.material.images[node?.image ?? '']?.uvSet === 1;
  }

  /** A UV transform of the second set, for images that lie on that; nothing where what runs in is no plain transform. */
  private transformOfSecond(transform: ResolvedNode): Expression | undefined {
    const { id, kind, overload, inlets } = transform;
    const uv = inlets.find(({ spec }) => spec.name === 'uv');
    if (kind.id !== TRANSFORM_KIND || !overload || !uv || uv.ribbon) return undefined;
    const known = this.values.get(`${id}/second`);
    if (known) return known;
    const args = inlets.map((inlet) =>
      inlet === uv ? this.surface({ surface: SECOND_UV }, irType(uv.type, this.structs)) : this.inlet(transform, inlet),
    );
    const value = this.declare(kind.id, call(overload, args), `${id}/second`);
    this.values.set(`${id}/second`, value);
    return value;
  }

  /** The value of another kind at this point, computed once however often it is asked for. */
  private surface(wanted: Extract<InletDefault, { surface: string }>, type: Type): Expression {
    const known = this.surfaces.get(wanted.surface);
    if (known) return known;
    const kind = this.catalogue.kinds.get(wanted.surface);
    const overload = kind?.overloads[0];
    if (!kind || !overload || !sameType(overload.result, type))
      throw new ReferenceError(`no kind ${wanted.surface} gives what an inlet wants`);
    const args = kind.inlets.map((spec, index) => {
      const parameter = overload.parameters[index]?.type ?? overload.result;
      return 'surface' in spec.default
        ? this.surface(spec.default, parameter)
        : constantOf(slotNumbers(spec.default.value, parameter), parameter);
    });
    const value = this.declare(kind.id, call(overload, args), `surface/${kind.id}`);
    this.surfaces.set(wanted.surface, value);
    return value;
  }

  private slot(type: Type, source: SlotSource, place: BakedInlet): Expression {
    const allocated = this.shared.slots.allocate(type, source);
    if (allocated) return allocated;
    this.shared.baked.push(place);
    return constantOf(documentNumbers(source, type, this.material) ?? [], type);
  }
}

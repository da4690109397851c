import { THIS_LIGHT_KIND, type Catalogue, type InletDefault, type InletSpec } from '../catalogue/kind';
import type { MaterialSource } from '../document/material';
import type { RibbonType } from '../document/ribbon-types';
import { DOCK } from '../document/graph';
import { call, global, local, signatureOf } from '../ir/build';
import type { Declare, Expression, IrFunction, Module } from '../ir/ir';
import { sameType, VEC3, type Type } from '../ir/types';
import { LightLoops, lightSum, sumFunction, TURN, type LightSum } from './light-loops';
import { conversion, irType, outletValue, type ConversionFunctions } from './ribbon-type';
import type { ResolvedGraph, ResolvedInlet, ResolvedNode } from './resolve';
import type { NodeHome } from './flatten';
import { constantOf, documentNumbers, SlotAllocator, slotNumbers, type SlotSource } from './slots';

const FIRST_UV = 'uv';
const SECOND_UV = 'secondUv';

/** An inlet whose number is part of the program. */
export interface BakedInlet {
  readonly home: NodeHome;
  readonly inlet: string;
}

export interface LoweredGraph {
  /** Sources first. */
  readonly line: readonly Declare[];
  /** Sums over the lights, which the line and each other call. */
  readonly sums: readonly LightSum[];
  readonly colour: Expression;
  readonly emission: Expression;
  /** Where the material has one. */
  readonly outline?: Expression;
  readonly slots: SlotAllocator;
  /** Inlets whose numbers had no room left and are part of the program: changing one compiles. */
  readonly baked: readonly BakedInlet[];
  /** Samplers of the program, each with the image it shows; without one a placeholder. */
  readonly images: readonly { readonly sampler: string; readonly image?: string }[];
  /** Locals that are computed once for each light. */
  readonly perLight: ReadonlySet<string>;
  /** The local that holds a node's value, by node. */
  readonly locals: ReadonlyMap<string, string>;
}

/** Turns the part of a graph that reaches the dock into a line of declarations. */
export function lowerGraph(
  resolved: ResolvedGraph,
  reached: ReadonlySet<string>,
  material: MaterialSource,
  catalogue: Catalogue,
  library: Module,
): LoweredGraph {
  return new Lowering(resolved, material, catalogue, library).run(reached);
}

class Lowering {
  private readonly line: Declare[] = [];
  private readonly sums: LightSum[] = [];
  private readonly loops: LightLoops;
  /** What is computed for each light, by loop. */
  private readonly turns = new Map<string, Declare[]>();
  private readonly slots = new SlotAllocator();
  private readonly baked: BakedInlet[] = [];
  private readonly images: { sampler: string; image?: string }[] = [];
  private readonly locals = new Map<string, string>();
  private readonly values = new Map<string, Expression>();
  private readonly names = new Map<string, number>();
  private readonly surfaces = new Map<string, Expression>();
  private readonly functions: ConversionFunctions;
  private readonly lit: Type;

  constructor(
    private readonly resolved: ResolvedGraph,
    private readonly material: MaterialSource,
    private readonly catalogue: Catalogue,
    private readonly library: Module,
  ) {
    const lit = library.structs.get('Lit');
    if (!lit) throw new ReferenceError('the shader library must define Lit');
    this.lit = lit;
    this.loops = new LightLoops(resolved.flat);
    const caller = (name: string, type: Type) => (value: Expression) => call(this.libraryFunction(name, type), [value]);
    this.functions = { luminance: caller('luminanceOf', VEC3), total: caller('totalLight', lit), emitted: caller('emitted', VEC3) };
  }

  run(reached: ReadonlySet<string>): LoweredGraph {
    for (const node of this.resolved.nodes.values()) if (reached.has(node.id)) this.node(node);
    const dock = (name: string): Expression => {
      const inlet = this.resolved.dock.find((each) => each.spec.name === name);
      if (!inlet) throw new ReferenceError(`the dock has no inlet ${name}`);
      return this.inlet({ id: DOCK, home: { node: DOCK } }, inlet);
    };
    return {
      line: this.line,
      sums: this.sums,
      colour: dock('colour'),
      emission: dock('emission'),
      outline: this.material.outline && dock('outline'),
      slots: this.slots,
      baked: this.baked,
      images: this.images,
      perLight: new Set([...this.turns.values()].flat().map((each) => each.name)),
      locals: this.locals,
    };
  }

  private libraryFunction(name: string, ...types: Type[]): IrFunction {
    const found = this.library.functions.get(signatureOf(name, types));
    if (!found) throw new ReferenceError(`the shader library must define ${signatureOf(name, types)}`);
    return found;
  }

  private node(resolved: ResolvedNode): void {
    const { id, kind, overload, node, port, inlets, outlets } = resolved;
    const loop = this.loops.enter(resolved);
    if (port) {
      const ended = this.loops.endedBy(resolved);
      if (ended === undefined) this.port(resolved);
      else this.sum(resolved, ended, loop);
      return;
    }
    if (!overload) {
      const source: SlotSource = { from: 'parameter', parameter: node?.parameter ?? '' };
      this.values.set(id, this.slot(irType(outlets['result'] ?? 'number', this.lit), source, { home: resolved.home, inlet: 'result' }));
      return;
    }
    const args = inlets.map((inlet) => this.inlet(resolved, inlet));
    if (kind.id === THIS_LIGHT_KIND) args.push(TURN);
    this.values.set(id, this.declare(kind.id, call(overload, args), id, loop));
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
      `sumOverLights${this.sums.length + 1}`,
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
      const type = inlet.type === 'light' ? 'number' : inlet.type;
      const value = this.slot(irType(type, this.lit), source, { home: port.home, inlet: port.inlet });
      this.values.set(resolved.id, inlet.type === 'light' ? (conversion('number', 'light')?.build(value, this.functions) ?? value) : value);
    }
  }

  /** @param loop the path of the group for each of whose lights it is computed; once, without */
  private declare(base: string, value: Expression, path: string, loop?: string): Expression {
    const count = (this.names.get(base) ?? 0) + 1;
    this.names.set(base, count);
    const name = `${base}${count}`;
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
    const wanted = irType(type, this.lit);
    if (type === 'image') return this.image(at.node?.image);
    if (!ribbon) return this.openInlet(at, spec, type, wanted);
    const source = this.values.get(ribbon.from);
    const from = this.resolved.nodes.get(ribbon.from);
    const given = from?.outlets[ribbon.outlet];
    const found = given && conversion(given, type);
    if (!source || !found) throw new ReferenceError(`ribbon into ${at.id}.${spec.name} was not resolved`);
    return found.build(from?.port ? source : outletValue(source, ribbon.outlet), this.functions);
  }

  /** One sampler an image, however many nodes read it. */
  private image(image: string | undefined): Expression {
    let index = this.images.findIndex((each) => each.image === image);
    if (index < 0) index = this.images.push({ sampler: `image${this.images.length}`, image }) - 1;
    return global(`image${index}`, irType('image', this.lit));
  }

  private openInlet(at: Pick<ResolvedNode, 'id' | 'home' | 'node'>, spec: InletSpec, type: RibbonType, wanted: Type): Expression {
    const place: BakedInlet = { home: at.home, inlet: spec.name };
    if (!('surface' in spec.default)) {
      // A number that is due as light is a grey emission.
      const slotType = type === 'light' ? irType('number', this.lit) : wanted;
      const slot = this.slot(slotType, { from: 'inlet', ...place, fallback: spec.default.value }, place);
      return type === 'light' ? (conversion('number', 'light')?.build(slot, this.functions) ?? slot) : slot;
    }
    if (at.node?.values[spec.name] !== undefined) return this.slot(wanted, { from: 'inlet', ...place, fallback: [0] }, place);
    const second = spec.default.surface === FIRST_UV && this.material.images[at.node?.image ?? '']?.uvSet === 1;
    return this.surface(second ? { surface: SECOND_UV } : spec.default, wanted);
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
    const allocated = this.slots.allocate(type, source);
    if (allocated) return allocated;
    this.baked.push(place);
    return constantOf(documentNumbers(source, type, this.material) ?? [], type);
  }
}

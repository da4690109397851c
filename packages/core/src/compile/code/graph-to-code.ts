import type { Material, MaterialParameter } from '@brelvin/contract';
import { functionOfKind } from '../../catalogue/function-library';
import type { ProgramImage } from '../lower';
import { functionsOf } from '../../catalogue/function-kind';
import type { InletSpec } from '../../catalogue/kind';
import { library as loadLibrary, type Library } from '../../catalogue/library';
import { DOCK, EMPTY_GRAPH } from '../../document/graph';
import { applyChanges } from '../../document/transaction';
import { local, member } from '../../ir/build';
import type { Expression, IrFunction, Module, Statement } from '../../ir/ir';
import { dropDead, fold, mapValues, shareCommon, substitute, type Line } from '../../ir/passes';
import { typeName, VEC3, type Type } from '../../ir/types';
import {
  functionHead,
  LineWriter,
  printStatements,
  printValue,
  writtenGlobal,
  camelName,
  writtenName,
  type PrintedNames,
} from '../../language';
import { mapSum, sumFunction } from '../light-loops';
import { resolveGraph, type GraphProblem, type ResolvedGraph } from '../resolve';
import { constantOf, documentNumbers, type Slot } from '../slots';
import { graphProblems, lowerStages, type LoweredStages } from '../stages';
import type { LoweredStage } from '../lower';
import { setMaterialCode } from './code-edits';
import { writeFunction, writeFunctions } from './written-functions';
import type { GraphAsCode } from './graph-as-code';
import { graphInWgsl } from './graph-in-wgsl';

/** Writes a material's graph as shading code that gives the same picture, with its numbers as parameters. */
export function graphAsCode(
  material: Material,
  library: Library = loadLibrary(),
  language: 'glsl' | 'wgsl' = 'glsl',
): GraphAsCode | { readonly problems: readonly GraphProblem[] } {
  const resolved = resolveGraph(material, library);
  if (resolved.problems.length > 0) return { problems: resolved.problems };
  const seenThrough = resolved.dock.some(({ spec, ribbon }) => spec.name === 'opacity' && ribbon);
  const inlets = ['colour', 'emission', ...(seenThrough ? ['opacity'] : []), ...(material.outline ? ['outline'] : [])];
  const stages = lowerStages(resolved, material, library, inlets);
  const problems = graphProblems(resolved, stages.shared);
  if (problems.length > 0) return { problems };
  const written = new GraphWriter(material, library, resolved, stages, inlets).write();
  return language === 'wgsl' ? graphInWgsl(written, library) : written;
}

/** Digits that tell a colour or position apart; more would only be noise. */
const numberText = (value: number): string => (Number.isInteger(value) ? value.toFixed(1) : String(value));

class GraphWriter {
  private readonly out = new LineWriter();
  private readonly taken = new Set<string>();
  /** Names of what the line declares, where a function or another one has the name that it would have. */
  private readonly locals = new Map<string, string>();
  /** Names of uniforms, by what stands for them in the line: slots and samplers. */
  private readonly uniforms = new Map<string, string>();
  /** Slots of the dock's open inlets. */
  private readonly dark = new Set<string>();
  private readonly parameters: Record<string, MaterialParameter> = {};
  private readonly module: Module;
  private readonly own: readonly IrFunction[];
  private readonly imports: readonly string[];

  constructor(
    private readonly material: Material,
    library: Library,
    private readonly resolved: ResolvedGraph,
    private readonly stages: LoweredStages,
    private readonly inlets: readonly string[],
  ) {
    const nodes = [...resolved.nodes.values()];
    const own = functionsOf(nodes.filter(({ kind }) => functionOfKind(kind.id) === undefined).map(({ kind }) => kind));
    const brought = functionsOf(nodes.map(({ kind }) => kind));
    // What the library has is called, not written out.
    this.own = own.flatMap(([signature, each]) => (library.module.functions.has(signature) ? [] : [each]));
    this.imports = [...new Set(nodes.flatMap(({ kind }) => functionOfKind(kind.id) ?? []))].sort();
    this.module = { ...library.module, functions: new Map([...library.module.functions, ...brought]) };
  }

  write(): GraphAsCode {
    const { shared, pixel, vertex } = this.stages;
    for (const name of [...[...this.module.functions.values()].map((each) => each.name), ...this.imports]) this.taken.add(name);
    for (const name of new Set([...pixel.line, ...(vertex?.line ?? [])].map((each) => each.name))) this.locals.set(name, this.free(name));
    for (const name of this.imports) this.out.line(`import ${name};`);
    if (this.imports.length > 0) this.out.line('');
    shared.slots.slots.forEach((slot) => this.uniform(slot));
    shared.images.forEach((each) => this.image(each));
    shared.carried.forEach(({ global, node }) => this.out.line(`out ${typeName(global.type)} ${global.name};`, { path: node }));
    writeFunctions(this.own, this.module, this.names, this.out);
    if (vertex) this.shape(vertex);
    this.sums(pixel);
    const [colour, emission, ...more] = this.results(pixel);
    if (!colour || !emission) throw new ReferenceError('a material has a colour and an emission');
    this.paint(colour, emission);
    const rest = this.inlets.slice(2);
    more.forEach((result, index) =>
      this.result(rest[index] === 'opacity' ? 'float opacity(Surface s)' : 'vec3 outline(Surface s)', result),
    );
    const source = this.out.finish();
    return { source, material: this.made(source.text) };
  }

  private made(text: string): Material {
    const base: Material = { ...this.material, surface: EMPTY_GRAPH, groups: {}, silenced: {}, parameters: this.parameters };
    return applyChanges(base, setMaterialCode(base, { text }).changes);
  }

  private free(wanted: string): string {
    const base = writtenName(camelName(wanted));
    let name = base;
    for (let count = 2; this.taken.has(name); count++) name = `${base}${count}`;
    this.taken.add(name);
    return name;
  }

  /** A number of the graph as a parameter, with its range, words and present value. */
  private uniform({ name, type, source }: Slot): void {
    // Only code declares whole numbers of its own.
    if (source.from === 'frame' || source.from === 'halves') return;
    const numbers = documentNumbers(source, type, this.material) ?? [0];
    if (source.from === 'parameter') {
      const parameter = this.material.parameters[source.parameter];
      if (!parameter) return;
      const uniform = this.free(parameter.name);
      this.parameters[source.parameter] = { ...parameter, uniform };
      this.declare(name, uniform, type, { label: parameter.name, numbers, ...parameter, colour: parameter.type === 'colour' });
      return;
    }
    if (source.from === 'pointer') {
      const uniform = this.free('pointer over');
      const live = { kind: 'pointer', low: 0, high: 1, period: 0.25, phase: 0, speed: 1 } as const;
      this.parameters['u-pointer'] = { name: 'Pointer over part', type: 'number', value: 0, order: 0, live, uniform };
      this.declare(name, uniform, type, { label: 'Pointer over part', numbers });
      return;
    }
    const { node: id, group } = source.home;
    if (id === DOCK) {
      // An open inlet of the dock has no number that anybody could change.
      this.uniforms.set(name, printValue(constantOf(numbers, type), this.names));
      this.dark.add(name);
      return;
    }
    const node = [...this.resolved.nodes.values()].find(({ home }) => home.node === id && home.group === group);
    const spec: InletSpec | undefined = node?.inlets.find((each) => each.spec.name === source.inlet)?.spec;
    const title = node?.node?.name ?? node?.kind.title ?? 'Group';
    const own = spec?.label ?? source.inlet;
    const label = source.from === 'factor' ? `${own}, factor` : own;
    const uniform = this.free(`${title} ${label}`);
    this.declare(name, uniform, type, {
      label: `${title}, ${label.toLowerCase()}`,
      numbers,
      low: spec?.low,
      high: spec?.high,
      unit: spec?.unit,
      help: spec?.help,
      heading: title,
      choices: spec?.choices,
      colour: spec?.meaning === 'colour' && typeName(type) === 'vec3',
    });
  }

  private declare(
    slot: string,
    uniform: string,
    type: Type,
    words: Partial<Pick<MaterialParameter, 'low' | 'high' | 'unit' | 'help' | 'heading' | 'choices'>> & {
      readonly label: string;
      readonly numbers: readonly number[];
      readonly colour?: boolean;
    },
  ): void {
    this.uniforms.set(slot, uniform);
    const { label, numbers, low, high, unit, help, heading, choices, colour } = words;
    const plain = (text: string): string => text.replace(/\*\/|@|\n/g, ' ').trim();
    const list = numbers.map(numberText).join(' ');
    const range =
      low === undefined || high === undefined || choices || type.kind !== 'scalar' ? '' : ` in ${numberText(low)}..${numberText(high)}`;
    const tags = [
      colour ? `@colour ${list}` : `@value ${list}${range}${unit && range ? ` unit ${unit}` : ''}`,
      ...(choices ? [`@of ${choices.join('|')}`] : []),
      ...(heading ? [`@heading ${plain(heading)}`] : []),
    ];
    this.out.line(`/** ${plain(label.replace(/:/g, ' '))}: ${help ? plain(help) : ''} ${tags.join(' ')} */`.replace(/ {2,}/g, ' '));
    const declarator = type.kind === 'array' ? `${typeName(type.element)} ${uniform}[${type.length}]` : `${typeName(type)} ${uniform}`;
    this.out.line(`uniform ${declarator};`);
  }

  private image({ sampler, image, cube }: ProgramImage): void {
    const label = this.material.images[image ?? '']?.name ?? 'Image';
    const uniform = this.free(`${label.replace(/\.[a-z]+$/i, '')} image`);
    this.uniforms.set(sampler, uniform);
    this.out.line(`uniform ${cube ? 'samplerCube' : 'sampler2D'} ${uniform};`);
    this.parameters[`u-${uniform}`] = {
      name: label,
      type: 'image',
      value: 0,
      order: 0,
      uniform,
      ...(image === undefined ? {} : { image }),
    };
  }

  private get names(): PrintedNames {
    return {
      functionOf: (signature) => this.module.functions.get(signature)?.name ?? signature.slice(0, signature.indexOf('(')),
      global: (name) => this.uniforms.get(name) ?? writtenGlobal(name),
      local: (name) => this.locals.get(name) ?? name,
      struct: (name) => name,
      field: (_, name) => name,
    };
  }

  private function(head: string, body: readonly Statement[], path?: string): void {
    writeFunction(head, body, this.names, this.out, path);
  }

  private get context(): { functions: Module['functions'] } {
    return { functions: this.module.functions };
  }

  /** Each result with the part of the line that it needs. */
  private results({ line: raw, results }: LoweredStage): { line: Line; value: Expression }[] {
    const shared = shareCommon(mapValues(raw, (value) => fold(value, this.context)));
    return results.map((result) => {
      const value = substitute(result, 'local', shared.replaced);
      return { line: dropDead(shared.line, [value]), value };
    });
  }

  private sums({ sums, line }: LoweredStage): void {
    const shared = shareCommon(mapValues(line, (value) => fold(value, this.context)));
    for (const sum of sums) {
      const declared = sumFunction(
        mapSum(sum, (value) => substitute(value, 'local', shared.replaced)),
        this.module,
      );
      this.function(functionHead({ ...declared, signature: declared.signature }, this.names), declared.body, sum.path);
    }
  }

  private shape(vertex: LoweredStage): void {
    this.sums(vertex);
    const [offset, ...carried] = this.results(vertex);
    if (!offset) throw new ReferenceError('a vertex stage begins with an offset');
    const shape = this.module.structs.get('Shape');
    if (!shape) throw new ReferenceError('the shader library must define Shape');
    const needed = dropDead(
      shareCommon(mapValues(vertex.line, (value) => fold(value, this.context))).line,
      [offset, ...carried].map(({ value }) => value),
    );
    const position = member(local('s', shape), 'position');
    const moved: Statement[] = this.stages.shaped
      ? [{ op: 'assign', target: position, value: { op: 'binary', operator: '+', left: position, right: offset.value, type: VEC3 } }]
      : [];
    const handed = carried.flatMap(({ value }, index): Statement[] => {
      const global = this.stages.shared.carried[index]?.global;
      return global ? [{ op: 'assign', target: { op: 'reference', scope: 'global', name: global.name, type: global.type }, value }] : [];
    });
    this.function('void shape(inout Shape s)', [...needed, ...handed, ...moved]);
  }

  private paint(colour: { line: Line; value: Expression }, emission: { line: Line; value: Expression }): void {
    const { value } = emission;
    const glows = !(value.op === 'reference' && this.dark.has(value.name));
    if (!glows) {
      this.result('Lit paint(Surface s)', colour);
      return;
    }
    const line = dropDead(mergeLines(colour.line, emission.line), [colour.value, value]);
    this.out.line('');
    this.out.line('Lit paint(Surface s) {');
    this.out.indented(() => {
      printStatements(line, this.names, this.out);
      this.out.line(`Lit light = ${printValue(colour.value, this.names)};`, { path: 'dock' });
      this.out.line(`light.emission += ${printValue(value, this.names)};`, { path: 'dock' });
      this.out.line('return light;', { path: 'dock' });
    });
    this.out.line('}');
  }

  private result(head: string, { line, value }: { line: Line; value: Expression }): void {
    this.function(head, [...line, { op: 'return', value, origin: { path: 'dock' } }]);
  }
}

/** Both lines in one order; they are parts of the same one. */
function mergeLines(a: Line, b: Line): Line {
  const known = new Set(a.map(({ name }) => name));
  return [...a, ...b.filter(({ name }) => !known.has(name))];
}

import type { DistanceField } from '@brelvin/contract';
import { functionsOf } from '../../catalogue/function-kind';
import { CARRY_KIND } from '../../catalogue/kind';
import { library as loadLibrary, type Library } from '../../catalogue/library';
import type { MaterialSource } from '../../document/material';
import { DOCK } from '../../document/graph';
import { global, local } from '../../ir/build';
import type { Expression, IrFunction, Module } from '../../ir/ir';
import { beyondFields } from '../../field/read-field';
import { dropDead, fold, mapValues, shareCommon, substitute } from '../../ir/passes';
import { INT, typeName, VEC3 } from '../../ir/types';
import { mapOperands, walkExpression } from '../../ir/walk';
import {
  camelName,
  LineWriter,
  printType,
  printValue,
  writtenGlobal,
  writtenName,
  type EmittedSource,
  type PrintedNames,
} from '../../language';
import { reachesAny } from '../graph-order';
import { resolveGraph, type GraphProblem, type ResolvedGraph } from '../resolve';
import { constantOf, documentNumbers, type Slot } from '../slots';
import { lowerStages, type LoweredStages } from '../stages';
import { writeFunction, writeFunctions } from './written-functions';

/** The place that a field is asked at, in code and in every node that wants a position. */
const PLACE = local('p', VEC3);
const POSITION = 'surfacePosition()';
const REGION = 'regionOf(float,int)';
/** What is joined with named regions and has no name. */
const REST = 'Rest';

/** What the compiler reads of a field’s graph. */
export function fieldGraph({ surface, groups, parameters }: Pick<DistanceField, 'surface' | 'groups' | 'parameters'>): MaterialSource {
  return { surface, groups, parameters, images: {}, field: true };
}

/** Writes a field’s graph as the code of a field, each line with its node; or says what a field cannot have. */
export function fieldAsCode(
  field: Pick<DistanceField, 'surface' | 'groups' | 'parameters'>,
  library: Library = loadLibrary(),
): { readonly source: EmittedSource } | { readonly problems: readonly GraphProblem[] } {
  const graph = fieldGraph(field);
  const resolved = resolveGraph(graph, library);
  if (resolved.problems.length > 0) return { problems: resolved.problems };
  const stages = lowerStages(resolved, graph, library, ['field']);
  const problems = unfitNodes(stages, resolved, graph);
  if (problems.length > 0) return { problems };
  return { source: new FieldWriter(graph, library.module, resolved, stages).write() };
}

/** What has a meaning only on a surface. What a field cannot read besides is told by whoever reads its text. */
function unfitNodes({ shared, pixel }: LoweredStages, resolved: ResolvedGraph, { parameters }: MaterialSource): GraphProblem[] {
  const found = shared.carried.map(({ node }): GraphProblem => ({
    node,
    message: 'A field has no vertices: take this node out, what runs into it comes as it is.',
  }));
  const read = reachesAny(resolved.incoming, [DOCK]);
  for (const { id, node, kind, overload } of resolved.nodes.values()) {
    if (!read.has(id)) continue;
    const beyond = overload && overload.signature !== POSITION ? beyondFields(overload.signature, shared.library) : undefined;
    if (beyond !== undefined && kind.id !== CARRY_KIND && node?.image === undefined)
      found.push({
        node: id,
        message: `A field is asked everywhere in space: what “${kind.title}” reads is known on surfaces only. Use Position, Time and numbers.`,
      });
    if (node?.image !== undefined) found.push({ node: id, message: 'A field reads no images: use noise, waves, or another pattern.' });
    if (kind.id === 'pointerOver') found.push({ node: id, message: 'A field does not know where the pointer is.' });
    const parameter = parameters[node?.parameter ?? ''];
    if (parameter?.live) found.push({ node: id, message: `“${parameter.name}” moves by itself; a field moves by the node Time.` });
  }
  for (const sum of pixel.sums) found.push({ node: sum.path, message: 'A field is a shape: there are no lights in it.' });
  return found;
}

class FieldWriter {
  private readonly out = new LineWriter();
  private readonly taken = new Set<string>();
  private readonly locals = new Map<string, string>();
  private readonly globals = new Map<string, string>();
  private readonly module: Module;
  private readonly own: readonly IrFunction[];

  constructor(
    private readonly graph: MaterialSource,
    library: Module,
    resolved: ResolvedGraph,
    private readonly stages: LoweredStages,
  ) {
    const brought = functionsOf([...resolved.nodes.values()].map(({ kind }) => kind));
    this.own = brought.flatMap(([signature, each]) => (library.functions.has(signature) ? [] : [each]));
    this.module = { ...library, functions: new Map([...library.functions, ...brought]) };
  }

  write(): EmittedSource {
    const { shared, pixel } = this.stages;
    for (const { name } of this.module.functions.values()) this.taken.add(name);
    for (const name of ['p', 'field']) this.taken.add(name);
    for (const { name, number } of shared.regions.named) {
      const written = this.free(constantName(name, number));
      this.globals.set(`region${number}`, written);
      this.out.line(`const int ${written} = ${number}; // region ${name.replace(/\s+/g, ' ')}`);
    }
    if (shared.regions.named.length > 0 && this.hasUnnamed(pixel)) this.out.line(`const int ${this.free('REST')} = 0; // region ${REST}`);
    const numbers = new Map(shared.slots.slots.map((slot) => [slot.name, this.number(slot)]));
    for (const { name } of pixel.line) this.locals.set(name, this.free(writtenName(camelName(name))));
    writeFunctions(this.own, this.module, this.names, this.out);
    const context = { functions: this.module.functions };
    const common = shareCommon(mapValues(pixel.line, (value) => fold(this.placed(substitute(value, 'global', numbers)), context)));
    const [result] = pixel.results;
    if (!result) throw new ReferenceError('a field has a distance');
    const value = this.placed(substitute(substitute(result, 'global', numbers), 'local', common.replaced));
    const line = dropDead(common.line, [value]);
    writeFunction('Field field(vec3 p)', [...line, { op: 'return', value, origin: { path: DOCK } }], this.names, this.out, DOCK);
    return this.out.finish();
  }

  /** Whether a distance without a region is joined with those that have one. */
  private hasUnnamed({ line, results }: LoweredStages['pixel']): boolean {
    let found = false;
    const values = [...line.flatMap(({ value }) => value ?? []), ...results];
    for (const value of values)
      walkExpression(value, (each) => {
        found ||= each.op === 'construct' && typeName(each.type) === 'Field';
      });
    return found;
  }

  /** A position is the place that is asked for, a region’s number has its name. */
  private placed(expression: Expression): Expression {
    const put = (each: Expression): Expression => {
      if (each.op !== 'call') return mapOperands(each, put);
      if (each.callee === POSITION) return PLACE;
      const [distance, region] = each.args;
      if (each.callee === REGION && distance && region?.op === 'constant')
        return { ...each, args: [put(distance), global(`region${region.value[0]}`, INT)] };
      return mapOperands(each, put);
    };
    return put(expression);
  }

  /** A number of a node stands in its line, a parameter under its name before all. */
  private number({ name, type, source }: Slot): Expression {
    const value = constantOf(documentNumbers(source, type, this.graph) ?? [0], type);
    const parameter = source.from === 'parameter' ? this.graph.parameters[source.parameter] : undefined;
    if (!parameter) return value;
    const written = this.free(writtenName(camelName(parameter.name)));
    this.globals.set(name, written);
    this.out.line(`const ${printType(type, this.names)} ${written} = ${printValue(value, this.names)};`);
    return global(name, type);
  }

  private free(wanted: string): string {
    let name = wanted;
    for (let count = 2; this.taken.has(name); count++) name = `${wanted}${count}`;
    this.taken.add(name);
    return name;
  }

  private get names(): PrintedNames {
    return {
      functionOf: (signature) => this.module.functions.get(signature)?.name ?? signature.slice(0, signature.indexOf('(')),
      global: (name) => this.globals.get(name) ?? writtenGlobal(name),
      local: (name) => this.locals.get(name) ?? name,
      struct: (name) => name,
      field: (_, name) => name,
    };
  }
}

/** “Net racks” is NET_RACKS. */
function constantName(words: string, number: number): string {
  const name = words
    .toUpperCase()
    .replace(/[^A-Z0-9]+/g, '_')
    .replace(/^_+|_+$/g, '');
  return /^[A-Z]/.test(name) ? name : `REGION_${number}`;
}

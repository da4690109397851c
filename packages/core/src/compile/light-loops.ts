import { THIS_LIGHT_KIND } from '../catalogue/kind';
import { call, constant, local, signatureOf } from '../ir/build';
import type { EvaluationContext } from '../ir/evaluate';
import type { Declare, Expression, IrFunction, Module, Statement } from '../ir/ir';
import { dropDead, fold, mapValues, shareCommon, substitute, type Line } from '../ir/passes';
import { BOOL, componentCount, INT, type Type } from '../ir/types';
import { walkExpression } from '../ir/walk';
import type { FlatGraph } from './flatten';

/** The number of the light whose turn it is, inside of a loop. */
export const LIGHT_INDEX = local('turn', INT);

/** What a loop needs to know of a node. */
interface LoopNode {
  readonly id: string;
  readonly port?: unknown;
  readonly kind: { readonly id: string };
  readonly inlets: readonly { readonly ribbon?: { readonly from: string } }[];
}

const OUT = '/out:';
const NONE: ReadonlySet<string> = new Set();

/**
 * Which nodes are computed once for each light: those in a group that runs so, and only where they depend on the
 * light. Loops are named by the path of the group's node.
 */
export class LightLoops {
  private readonly depends = new Map<string, ReadonlySet<string>>();

  constructor(private readonly flat: Pick<FlatGraph, 'instances'>) {}

  /** The innermost group around a path that runs for each light. */
  around(path: string): string | undefined {
    for (let end = path.lastIndexOf('/'); end > 0; end = path.lastIndexOf('/', end - 1)) {
      const instance = path.slice(0, end);
      if (this.flat.instances.get(instance)?.group.eachLight) return instance;
    }
    return undefined;
  }

  /** The loop that ends where this port leads out of it. */
  endedBy({ id, port }: Pick<LoopNode, 'id' | 'port'>): string | undefined {
    if (!port || !id.includes(OUT)) return undefined;
    const instance = id.slice(0, id.lastIndexOf(OUT));
    return this.flat.instances.get(instance)?.group.eachLight ? instance : undefined;
  }

  /** In which loop a node is computed; call it for sources first. */
  enter(node: LoopNode): string | undefined {
    const found = new Set<string>();
    for (const { ribbon } of node.inlets) for (const each of this.depends.get(ribbon?.from ?? '') ?? NONE) found.add(each);
    const own = node.kind.id === THIS_LIGHT_KIND ? this.around(node.id) : undefined;
    if (own !== undefined) found.add(own);
    const ended = this.endedBy(node);
    if (ended !== undefined) found.delete(ended);
    this.depends.set(node.id, found.size > 0 ? found : NONE);
    // They stand in each other, so the longest path is the innermost.
    return [...found].reduce<string | undefined>((longest, each) => (each.length > (longest?.length ?? 0) ? each : longest), undefined);
  }
}

/** A sum over all lights that shine, before it becomes a function. */
export interface LightSum {
  readonly name: string;
  readonly path: string;
  /** What one light gives, and the way to it. */
  readonly line: Line;
  readonly value: Expression;
  /** What it needs from outside. */
  readonly needed: readonly { readonly name: string; readonly type: Type }[];
}

/** @param all what is computed for each light in this loop, of which only what the result needs is kept */
export function lightSum(name: string, path: string, all: Line, result: Expression, context: EvaluationContext): LightSum {
  const { line, replaced } = shareCommon(mapValues(all, (value) => fold(value, context)));
  const value = substitute(result, 'local', replaced);
  const kept = dropDead(line, [value]);
  const own = new Set([LIGHT_INDEX.name, ...kept.map((each) => each.name)]);
  const needed = new Map<string, Type>();
  const look = (expression: Expression): void =>
    walkExpression(expression, (each) => {
      if (each.op === 'reference' && each.scope === 'local' && !own.has(each.name)) needed.set(each.name, each.type);
    });
  for (const declared of kept) if (declared.value) look(declared.value);
  look(value);
  return { name, path, line: kept, value, needed: [...needed].map(([each, type]) => ({ name: each, type })) };
}

/** The function that walks over the lights and adds up. */
export function sumFunction({ name, path, line, value, needed }: LightSum, library: Module): IrFunction {
  const { type } = value;
  const libraryFunction = (signature: string): IrFunction => {
    const found = library.functions.get(signature);
    if (!found) throw new ReferenceError(`the shader library must define ${signature}`);
    return found;
  };
  const sum = local('sum', type);
  const count = local('lights', INT);
  const isLight = type.kind === 'struct';
  const start = isLight ? call(libraryFunction('darkness()'), []) : constant(type, Array<number>(componentCount(type)).fill(0));
  const more: Expression = isLight
    ? call(libraryFunction(signatureOf('addValues', [type, type])), [sum, value])
    : { op: 'binary', operator: '+', left: sum, right: value, type };
  const declare = (name: string, value: Expression, mutable: boolean): Declare => ({
    op: 'declare',
    name,
    type: value.type,
    value,
    mutable,
  });
  const body: Statement[] = [
    declare(sum.name, start, true),
    declare(count.name, call(libraryFunction('lightsInUse()'), []), false),
    {
      op: 'block',
      body: [
        declare(LIGHT_INDEX.name, constant(INT, [0]), true),
        {
          op: 'loop',
          condition: { op: 'binary', operator: '<', left: LIGHT_INDEX, right: count, type: BOOL },
          testFirst: true,
          body: [...line, { op: 'assign', target: sum, value: more }],
          step: [
            {
              op: 'assign',
              target: LIGHT_INDEX,
              value: { op: 'binary', operator: '+', left: LIGHT_INDEX, right: constant(INT, [1]), type: INT },
            },
          ],
        },
      ],
    },
    { op: 'return', value: sum },
  ];
  return {
    signature: signatureOf(
      name,
      needed.map((each) => each.type),
    ),
    name,
    parameters: needed.map((each) => ({ ...each, direction: 'in' })),
    result: type,
    body,
    origin: { path },
  };
}

export function mapSum(sum: LightSum, change: (expression: Expression) => Expression): LightSum {
  return { ...sum, line: mapValues(sum.line, change), value: change(sum.value) };
}

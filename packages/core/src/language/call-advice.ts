import type { Expression } from '../ir/ir';
import { write, type CodeMend, type DiagnosticMore } from './diagnostics';
import type { SourceText } from './source';
import type { ExpressionSyntax } from './syntax';
import type { DirectionKind, WrittenDirection } from './direction-kind';
import { DIRECTION_WORDS } from './written-directions';

/** What can be said of an argument: at which one, and how to mend it. */
export interface Advice {
  readonly message: string;
  readonly at: ExpressionSyntax;
  readonly more: DiagnosticMore;
}

type Directions = readonly (WrittenDirection | undefined)[];

/** A call of a built-in whose arguments are most likely swapped, or point the wrong way. */
export function adviseBuiltin(
  name: string,
  args: readonly Expression[],
  written: readonly ExpressionSyntax[],
  directions: Directions,
  source: SourceText,
): Advice | undefined {
  if (name === 'reflect' || name === 'refract') return adviseMirror(name, written, directions, source);
  const [first, second, third] = args.map((each) => (each.op === 'constant' ? each.value[0] : undefined));
  const [at] = written;
  if (!at || args.length < 3) return undefined;
  if (name === 'smoothstep' && first === undefined && second !== undefined && third !== undefined) {
    const message = 'smoothstep takes the two edges first, then the value between them.';
    return { message, at, more: { mends: [reordered(written, [1, 2, 0], source)] } };
  }
  // A constant below the least is always the least: hardly meant.
  if (name === 'clamp' && first !== undefined && second !== undefined && third === undefined && first < second) {
    const message = 'clamp takes the value first, then the least and the most that it may be.';
    return { message, at, more: { mends: [reordered(written, [2, 0, 1], source)] } };
  }
  return undefined;
}

/** Reflect and refract (GLSL ES 3.00, section 8.5) take what travels to the surface, then its normal. */
function adviseMirror(
  name: string,
  written: readonly ExpressionSyntax[],
  [incident, normal]: Directions,
  source: SourceText,
): Advice | undefined {
  const [at, second] = written;
  if (!at || !second) return undefined;
  if (incident?.kind === 'normal' && normal?.kind !== 'normal') {
    const order = written.map((_, index) => (index < 2 ? 1 - index : index));
    const message = `${name} takes the direction that travels to the surface first, then the normal.`;
    return { message, at, more: { mends: [reordered(written, order, source)] } };
  }
  if (incident && incident.kind !== 'normal' && !incident.turned) {
    const message = `${name} takes a direction that travels to the surface, but this is ${DIRECTION_WORDS[incident.kind]}: the result points into the surface.`;
    return { message, at, more: { mends: [turned(at, source)] } };
  }
  return normal && adviseDirection(name, 'normal', normal, second, source);
}

/** An argument that is another direction than the parameter's documentation wants. */
export function adviseDirection(
  name: string,
  wanted: DirectionKind,
  { kind, turned: isTurned }: WrittenDirection,
  at: ExpressionSyntax,
  source: SourceText,
): Advice | undefined {
  if (kind !== wanted)
    return { message: `${name} wants ${DIRECTION_WORDS[wanted]} here, but this is ${DIRECTION_WORDS[kind]}.`, at, more: {} };
  if (!isTurned) return undefined;
  const message = `${name} wants ${DIRECTION_WORDS[wanted]} here, but this is turned round: the lit side goes dark.`;
  return { message, at, more: { mends: [turned(at, source)] } };
}

function turned(at: ExpressionSyntax, source: SourceText): CodeMend {
  const text = source.slice(at);
  if (at.op === 'unary' && at.operator === '-') return write(source.slice(at.value), at, 'Turn it round');
  return write(at.op === 'binary' || at.op === 'conditional' ? `-(${text})` : `-${text}`, at, 'Turn it round');
}

/** The same arguments in another order: `order[i]` is the one that stands at `i`. */
export function reordered(written: readonly ExpressionSyntax[], order: readonly number[], source: SourceText): CodeMend {
  const edits = written.flatMap((at, index) => {
    const next = written[order[index] ?? index];
    return next && next !== at ? [{ from: at.from, to: at.to, text: source.slice(next) }] : [];
  });
  return { label: 'Put the arguments in order', edits };
}

/** All orders of up to four things, those that keep most neighbours in place first. */
export function ordersOf(count: number): readonly (readonly number[])[] {
  const grow = (left: readonly number[]): number[][] =>
    left.length === 0 ? [[]] : left.flatMap((each) => grow(left.filter((other) => other !== each)).map((rest) => [each, ...rest]));
  const kept = (order: readonly number[]): number =>
    order.filter((each, index) => index > 0 && each === (order[index - 1] ?? -2) + 1).length;
  return grow(Array.from({ length: count }, (_, index) => index)).sort((a, b) => kept(b) - kept(a));
}

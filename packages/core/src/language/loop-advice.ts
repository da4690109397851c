import type { Expression, IrFunction, Loop, Statement } from '../ir/ir';
import { MOST_PLAIN_STEPS, MOST_STEPS, turnsOf } from '../ir/loop-guard';
import type { Range } from '../ir/origin';
import { anyExpression, anyStatement, expressionsOf } from '../ir/walk';
import type { DiagnosticList } from './diagnostics';
import type { Environment } from './environment';

/** What a front end has at hand where it reads a loop. */
interface Context {
  readonly diagnostics: DiagnosticList;
  readonly environment: Environment;
}

/** Warns of a loop that nothing ends. @param word the word that begins it */
export function adviseEnd(context: Context, condition: Expression, body: readonly Statement[], syntax: Range, word: string): void {
  const { diagnostics, environment } = context;
  if (!environment.options.advice || diagnostics.hasErrorIn(syntax) || mayEnd(condition, body, environment.functions)) return;
  const message = `Nothing in this loop brings it to an end. It is broken off after ${inThousands(MOST_STEPS)} steps.`;
  diagnostics.add('warning', message, { from: syntax.from, to: syntax.from + word.length });
}

/** Warns of a “for” that plainly goes round more often than devices can be expected to. */
export function adviseLength({ diagnostics, environment }: Context, loop: Loop, start: Statement | undefined, { from }: Range): void {
  const turns = turnsOf(loop, start, environment.functions);
  if (turns === undefined || turns <= MOST_PLAIN_STEPS || !environment.options.advice) return;
  const message = `This loop goes round ${inThousands(turns)} times at each pixel; devices can be expected to do ${inThousands(MOST_PLAIN_STEPS)}. It is broken off after ${inThousands(MOST_STEPS)} steps.`;
  diagnostics.add('warning', message, { from, to: from + 'for'.length });
}

function inThousands(count: number): string {
  return String(count).replace(/\B(?=(\d{3})+$)/g, ',');
}

/**
 * Whether anything in a loop can end it: something leaves it, or something that its condition looks at changes. Only what
 * surely goes on for ever is found.
 */
function mayEnd(condition: Expression, body: readonly Statement[], functions: ReadonlyMap<string, IrFunction>): boolean {
  if (condition.op === 'constant' && condition.value[0] === 0) return true;
  const looked = new Set<string>();
  const elsewhere = anyExpression(condition, (each) => {
    if (each.op === 'reference' && each.scope === 'local') looked.add(each.name);
    return each.op === 'call' || (each.op === 'reference' && each.scope !== 'local');
  });
  if (elsewhere) return true;
  const changes = (target: Expression): boolean => {
    let root = target;
    while (root.op === 'member' || root.op === 'swizzle' || root.op === 'index') root = root.object;
    return root.op === 'reference' && looked.has(root.name);
  };
  const writes = (each: Expression): boolean => {
    if (each.op !== 'call') return false;
    const { parameters = [] } = functions.get(each.callee) ?? {};
    return each.args.some((arg, index) => parameters[index] !== undefined && parameters[index].direction !== 'in' && changes(arg));
  };
  return anyStatement(body, (each) => {
    if (each.op === 'break' || each.op === 'return' || each.op === 'discard') return true;
    if (each.op === 'assign' && changes(each.target)) return true;
    return expressionsOf(each).some((expression) => anyExpression(expression, writes));
  });
}

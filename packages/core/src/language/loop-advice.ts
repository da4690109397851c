import type { Expression, IrFunction, Loop, Statement } from '../ir/ir';
import { MOST_PLAIN_STEPS, MOST_STEPS, turnsOf } from '../ir/loop-guard';
import type { Range } from '../ir/origin';
import { expressionsOf, walkExpression, walkStatements } from '../ir/walk';
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
  let elsewhere = false;
  walkExpression(condition, (each) => {
    if (each.op === 'reference') {
      if (each.scope === 'local') looked.add(each.name);
      else elsewhere = true;
    }
    if (each.op === 'call') elsewhere = true;
  });
  let ends = elsewhere;
  const change = (target: Expression): void => {
    let root = target;
    while (root.op === 'member' || root.op === 'swizzle' || root.op === 'index') root = root.object;
    if (root.op === 'reference' && looked.has(root.name)) ends = true;
  };
  walkStatements(body, (statement) => {
    if (statement.op === 'break' || statement.op === 'return' || statement.op === 'discard') ends = true;
    if (statement.op === 'assign') change(statement.target);
    for (const expression of expressionsOf(statement)) {
      walkExpression(expression, (each) => {
        if (each.op !== 'call') return;
        functions.get(each.callee)?.parameters.forEach(({ direction }, index) => {
          const arg = each.args[index];
          if (direction !== 'in' && arg) change(arg);
        });
      });
    }
  });
  return ends;
}

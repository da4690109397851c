import type { ResolvedInlet, ResolvedNode } from '../compile/resolve';
import { joinEdits, type Edit } from '../document/edit';
import { GraphEdits } from '../document/graph-edits';
import type { CheckInput } from './check';
import { insertBefore } from './graph-places';

/** Multiplies by −1 on the way. */
export function turnRound(input: CheckInput, node: ResolvedNode, inlet: ResolvedInlet): Edit | undefined {
  const inserted = insertBefore(input, node, inlet, 'multiply', 'a');
  const id = inserted?.changes[0]?.path.at(-1);
  if (!inserted || id === undefined) return undefined;
  const edits = new GraphEdits(node.home.group);
  return joinEdits('Turn a direction round', inserted, edits.setInletValue({ node: id, inlet: 'b' }, -1, 'B'));
}

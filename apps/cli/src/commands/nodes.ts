import { library } from '@brelvin/core';
import type { ExitCode, Output } from '../output';

/** Lists the node kinds. */
export function listNodes({ json }: { json?: boolean }, output: Output): ExitCode {
  const kinds = [...library().kinds.values()].sort((a, b) => a.family.localeCompare(b.family) || a.title.localeCompare(b.title));
  if (json) {
    const plain = kinds.map(({ overloads, ...kind }) => ({ ...kind, signatures: overloads.map((each) => each.signature) }));
    output.out(JSON.stringify(plain, null, 2));
    return 0;
  }
  for (const kind of kinds) output.out(`${kind.id.padEnd(14)} ${kind.family.padEnd(8)} ${kind.title}: ${kind.help}`);
  return 0;
}

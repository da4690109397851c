import type { Material, MaterialParameter } from '@brelvin/contract';
import { parametersOf } from '@brelvin/core';

/** Where the code of a code material declares each of its parameters, by uniform; nothing for a graph. */
export function declaredParameters({ code }: Material): ReadonlyMap<string, ReturnType<typeof parametersOf>[number]> | undefined {
  return code && new Map(parametersOf(code).map((each) => [each.uniform, each]));
}

/** Parameters that have a control, in order; those whose line in the code is away have none. */
export function shownParameters(material: Material, declared = declaredParameters(material)): [string, MaterialParameter][] {
  return Object.entries(material.parameters)
    .filter(([, { uniform }]) => !declared || (uniform !== undefined && declared.has(uniform)))
    .sort(([, a], [, b]) => a.order - b.order || a.name.localeCompare(b.name));
}

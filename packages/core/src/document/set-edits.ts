import type { InletValue, Json, PartRule, SavedView, SetFloor, SetMesh, StageSet, Change } from '@brelvin/contract';
import type { Edit } from './edit';
import { ruleFits, rulesInOrder } from './part-rules';

/** Puts a mesh into a set, or another one in its place. */
export function putMesh(id: string, mesh: SetMesh, label = `Add ${mesh.name}`): Edit {
  return { label, changes: [{ path: ['meshes', id], value: mesh }] };
}

/** Changes a field of a mesh, by its path; without a value the field goes. */
export function setMesh(id: string, path: readonly string[], value: Json | undefined, label: string): Edit {
  const full = ['meshes', id, ...path];
  return { label, changes: [value === undefined ? { path: full } : { path: full, value }] };
}

/** Takes a mesh away with the rules that are only about it. */
export function removeMesh(set: StageSet, id: string): Edit {
  const rules = Object.entries(set.partRules).filter(([, rule]) => rule.mesh === id);
  return {
    label: `Remove ${set.meshes[id]?.name ?? 'a mesh'}`,
    changes: [{ path: ['meshes', id] }, ...rules.map(([rule]): Change => ({ path: ['partRules', rule] }))],
  };
}

/** Keeps a view of the camera under a name, or takes it away. */
export function putView(id: string, view: SavedView | undefined): Edit {
  if (!view) return { label: 'Forget a view', changes: [{ path: ['views', id] }] };
  return { label: `Keep the view ${view.name}`, changes: [{ path: ['views', id], value: view }] };
}

export function setFloor<K extends keyof SetFloor>(field: K, value: SetFloor[K]): Edit {
  return { label: 'Change the floor', changes: [{ path: ['floor', field], value }] };
}

/** The rule that is about this one part only, if there is one. */
export function ownRule(set: Pick<StageSet, 'partRules'>, mesh: string, part: string): [string, PartRule] | undefined {
  return rulesInOrder(set)
    .reverse()
    .find(([, rule]) => rule.mesh === mesh && rule.pattern === part);
}

export function nextOrder(records: Readonly<Record<string, { readonly order: number }>>): number {
  return Math.max(-1, ...Object.values(records).map((each) => each.order)) + 1;
}

type RuleFields = Omit<PartRule, 'order' | 'mesh' | 'pattern' | 'values'>;

/** Says something about one part; a rule of its own is made when there is none. Without a value the word is taken back. */
export function dressPart<K extends keyof RuleFields>(
  set: StageSet,
  mesh: string,
  part: string,
  field: K,
  value: RuleFields[K] | undefined,
  newId: () => string,
): Edit {
  const label = { material: 'Put a material on', drawOrder: 'Draw order of', depthOffset: 'Depth offset of' }[field as string] ?? 'Change';
  return { label: `${label} ${part}`, changes: ruleChange(set, mesh, part, [field], value, newId) };
}

/** Gives a part a parameter value of its own, or takes it away. */
export function setPartValue(
  set: StageSet,
  mesh: string,
  part: string,
  parameter: string,
  value: InletValue | undefined,
  newId: () => string,
): Edit {
  return { label: `Change ${part}`, changes: ruleChange(set, mesh, part, ['values', parameter], value, newId) };
}

/** Takes values of a part's own away, whichever of its rules has them. */
export function removePartValues(set: StageSet, mesh: string, part: string, parameters: readonly string[]): Edit {
  const changes = rulesInOrder(set)
    .filter(([, rule]) => ruleFits(rule, mesh, part))
    .flatMap(([id, { values }]) =>
      parameters.filter((each) => Object.hasOwn(values, each)).map((each): Change => ({ path: ['partRules', id, 'values', each] })),
    );
  return { label: `Tidy the values of ${part}`, changes };
}

function ruleChange(
  set: StageSet,
  mesh: string,
  part: string,
  path: readonly string[],
  value: Json | undefined,
  newId: () => string,
): readonly Change[] {
  const own = ownRule(set, mesh, part);
  const id = own?.[0] ?? newId();
  const made: Change[] = own
    ? []
    : [{ path: ['partRules', id], value: { order: nextOrder(set.partRules), mesh, pattern: part, values: {} } }];
  const full = ['partRules', id, ...path];
  return [...made, value === undefined ? { path: full } : { path: full, value }];
}

export function putRule(id: string, rule: PartRule): Edit {
  return { label: `Rule for ${rule.pattern}`, changes: [{ path: ['partRules', id], value: rule }] };
}

export function removeRule(set: StageSet, id: string): Edit {
  return { label: `Remove the rule for ${set.partRules[id]?.pattern ?? 'parts'}`, changes: [{ path: ['partRules', id] }] };
}

import type { PartRule, StageSet } from '@brelvin/contract';

/** The floor is a part that rules can dress, on a mesh of its own. */
export const FLOOR = 'floor';

/** What a part wears and how it is drawn, after all rules. */
export interface PartOverrides {
  /** Id of a material; without one, the material on the Bench. */
  readonly material?: string;
  readonly values: PartRule['values'];
  readonly drawOrder: number;
  readonly depthOffset: number;
  readonly faces: NonNullable<PartRule['faces']>;
  readonly casts: boolean;
  readonly receives: boolean;
}

const PLAIN: PartOverrides = { values: {}, drawOrder: 0, depthOffset: 0, faces: 'auto', casts: true, receives: true };

export function rulesInOrder(set: Pick<StageSet, 'partRules'>): [string, PartRule][] {
  return Object.entries(set.partRules).sort(([a, one], [b, other]) => one.order - other.order || a.localeCompare(b));
}

/**
 * Whether a rule is about a part. Its pattern is a name, or several between commas; `*` stands for any letters; case does not
 * matter. A part whose own name has a comma is known by all of it.
 */
export function ruleFits(rule: Pick<PartRule, 'mesh' | 'pattern'>, mesh: string, part: string): boolean {
  if (rule.mesh !== undefined && rule.mesh !== mesh) return false;
  if (nameFits(rule.pattern, part)) return true;
  return rule.pattern.split(',').some((name) => nameFits(name.trim(), part));
}

function nameFits(pattern: string, part: string): boolean {
  const pieces = pattern.split('*').map((piece) => piece.replace(/[.+?^${}()|[\]\\]/g, '\\$&'));
  return new RegExp(`^${pieces.join('.*')}$`, 'i').test(part);
}

/** What all rules together say of a part; later rules go on top of earlier ones. */
export function overridesOf(set: Pick<StageSet, 'partRules'>, mesh: string, part: string): PartOverrides {
  return rulesInOrder(set)
    .filter(([, rule]) => ruleFits(rule, mesh, part))
    .reduce<PartOverrides>(
      (dress, [, rule]) => ({
        material: rule.material ?? dress.material,
        values: { ...dress.values, ...rule.values },
        drawOrder: rule.drawOrder ?? dress.drawOrder,
        depthOffset: rule.depthOffset ?? dress.depthOffset,
        faces: rule.faces ?? dress.faces,
        casts: rule.casts ?? dress.casts,
        receives: rule.receives ?? dress.receives,
      }),
      PLAIN,
    );
}

/** Ids of all materials that rules of a set name. */
export function materialsOf(set: Pick<StageSet, 'partRules'>): ReadonlySet<string> {
  return new Set(Object.values(set.partRules).flatMap((rule) => (rule.material === undefined ? [] : [rule.material])));
}

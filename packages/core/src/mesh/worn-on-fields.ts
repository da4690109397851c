import type { StageSet } from '@brelvin/contract';
import { materialsOf, overridesOf } from '../document/part-rules';
import { partNames } from './build-mesh';

/**
 * Ids of the materials that parts of fields wear. Of a field whose text cannot be read now, all that any of its parts could wear.
 *
 * @param bench what parts without a rule wear
 */
export function wornOnFields(set: Pick<StageSet, 'meshes' | 'partRules'>, bench: string): ReadonlySet<string> {
  const fields = Object.entries(set.meshes).filter(([, { shape }]) => shape === 'field');
  const worn = fields.flatMap(([id, mesh]) => {
    const parts = partNames(mesh);
    return parts.length > 0 ? parts.map((part) => overridesOf(set, id, part).material ?? bench) : [bench, ...materialsOf(set)];
  });
  return new Set(worn);
}

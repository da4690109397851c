import type { StageSet } from '@brelvin/contract';
import { overridesOf } from '../document/part-rules';
import { partNames } from './build-mesh';

/** Ids of the materials that parts of fields wear. @param bench what parts without a rule wear */
export function wornOnFields(set: Pick<StageSet, 'meshes' | 'partRules'>, bench: string): ReadonlySet<string> {
  const fields = Object.entries(set.meshes).filter(([, { shape }]) => shape === 'field');
  return new Set(fields.flatMap(([id, mesh]) => partNames(mesh).map((part) => overridesOf(set, id, part).material ?? bench)));
}

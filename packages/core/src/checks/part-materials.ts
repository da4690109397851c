import { partNames } from '../mesh/build-mesh';
import { ruleFits } from '../document/part-rules';
import type { Check } from './check';

/** A part is told to wear a material that is not there. */
export const partMaterials: Check = {
  id: 'part-material',
  find: ({ set, missingMaterials }) => {
    if (!set) return [];
    return Object.entries(set.partRules).flatMap(([id, rule]) => {
      const reason = rule.material === undefined ? undefined : missingMaterials.get(rule.material);
      if (reason === undefined) return [];
      const parts = Object.entries(set.meshes).flatMap(([mesh, stands]) => partNames(stands).filter((part) => ruleFits(rule, mesh, part)));
      return [
        {
          place: `rule/${id}`,
          title: `${parts.length > 0 ? `“${parts.join('”, “')}”` : `Parts called “${rule.pattern}”`} have no material.`,
          explanation: `${reason} Parts with it are drawn hatched, as not ready.`,
          mend: {
            label: 'Give them the material on the Bench',
            document: 'set',
            edit: { label: 'Take a missing material off', changes: [{ path: ['partRules', id, 'material'] }] },
          },
        },
      ];
    });
  },
};

import { throwsShadows } from '../scene/lights';
import { dressPart } from '../document/set-edits';
import type { Check } from './check';
import { dressedParts } from './dressed-parts';

/** What is seen through throws a whole shadow on what is inside it. */
export const shellShadow: Check = {
  id: 'shell-shadow',
  find: (input) => {
    const { set, rig, newId } = input;
    if (!set || !rig || !throwsShadows(rig)) return [];
    return dressedParts(input)
      .filter(({ seen, dress }) => (seen === 'glass' || seen === 'blend' || seen === 'unsorted' || seen === 'add') && dress.casts)
      .map(({ mesh, part }) => ({
        place: `part/${mesh}/${part}`,
        title: `“${part}” is transparent, but casts shadow like a solid part.`,
        explanation:
          'A shadow is all or nothing. A glass shell that casts one darkens its own inside, as a lamp whose wick lies in the dark.',
        mend: {
          label: `Let “${part}” cast no shadow`,
          document: 'set' as const,
          edit: dressPart(set, mesh, part, 'casts', false, newId),
        },
      }));
  },
};

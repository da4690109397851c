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
        title: `“${part}” is seen through, but shadows what is inside and behind it as if it were solid.`,
        explanation:
          'Shadows know only of something or nothing in their way. A shell of glass that throws one makes its own inside dark: a lamp whose wick is in the dark.',
        mend: {
          label: `Let “${part}” throw no shadow`,
          document: 'set' as const,
          edit: dressPart(set, mesh, part, 'casts', false, newId),
        },
      }));
  },
};

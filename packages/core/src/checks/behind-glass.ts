import type { Check } from './check';
import { dressedParts } from './dressed-parts';

/** What is laid over the picture is missing behind glass, which hides it. */
export const behindGlass: Check = {
  id: 'behind-glass',
  find: (input) => {
    const parts = dressedParts(input);
    const glass = parts.filter(({ seen }) => seen === 'glass');
    const over = parts.filter(({ seen }) => seen === 'blend' || seen === 'unsorted' || seen === 'add');
    const [first] = over;
    if (glass.length === 0 || !first) return [];
    const names = (list: typeof parts): string => `“${[...new Set(list.map(({ part }) => part))].join('”, “')}”`;
    const mine = over.some(({ dress }) => dress.material === undefined || dress.material === input.bench);
    return [
      {
        place: `part/${first.mesh}/${first.part}`,
        title: `${names(glass)} hides ${names(over)} where that is behind it.`,
        explanation:
          'Glass shows what was drawn before it. Blended surfaces are drawn after all glass, so that they may be in front of it; behind the glass they are missing.',
        ...(mine
          ? {
              mend: {
                label: 'Cut it out instead: soft edges go, but it is seen through glass',
                document: 'material' as const,
                edit: { label: 'Opacity: cut out', changes: [{ path: ['opacity'], value: 'cut' }] },
              },
            }
          : {}),
      },
    ];
  },
};

import { normalReaders, readGreenAs } from '../maps/green-of-normals';
import type { Check } from './check';

/** A normal map whose green is read the wrong way: bumps where dents should be. */
export const normalSenses: Check = {
  id: 'normal-sense',
  find: ({ material, images }) =>
    Object.entries(material.images).flatMap(([id, { name, asset }]) => {
      const green = images?.get(asset)?.normals?.green;
      if (!green || green === 'unclear') return [];
      const wrong = normalReaders(material, id).filter(({ greenDown }) => greenDown !== (green === 'down'));
      const [first] = wrong;
      if (!first) return [];
      return [
        {
          place: `image/${id}`,
          node: first.group === undefined ? first.node : undefined,
          title: `“${name || 'A normal map'}” looks as if its green pointed ${green}, but is read as green ${green === 'down' ? 'up' : 'down'}.`,
          explanation:
            'Read the wrong way, light from above falls on the lower side of every bump: bumps look like dents. The maps tab shows both ways lit.',
          mend: { label: `Read green ${green}`, document: 'material' as const, edit: readGreenAs(wrong, green === 'down') },
        },
      ];
    }),
};

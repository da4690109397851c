import type { Check } from './check';
import { meshesWearing } from './dressed-parts';
import { placedNodes } from './graph-places';

/** A normal map on a mesh of which one half has the UVs of the other, mirrored. */
export const mirroredUvs: Check = {
  id: 'mirrored-uvs',
  find: (input) => {
    const { set } = input;
    const reader = placedNodes(input).find(({ kind }) => kind.id === 'normalFromMap');
    if (!set || !reader) return [];
    return meshesWearing(input).flatMap((id) => {
      const mesh = set.meshes[id];
      if (!mesh?.source?.mirrored) return [];
      return [
        {
          place: `mesh/${id}`,
          node: reader.id,
          title: `Parts of “${mesh.name}” have mirrored UVs: its normal map may show a seam where they meet.`,
          explanation:
            'Where UVs are mirrored, tangents point against each other; they are kept apart, so bumps go the right way on both sides. But a map that was baked without regard to that has a crease in the middle. Move the seam to where it is not seen, or bake again.',
        },
      ];
    });
  },
};

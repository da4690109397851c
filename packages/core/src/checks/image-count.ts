import { MOST_IMAGES } from '../compile/limits';
import type { Check } from './check';
import { placedNodes } from './graph-places';

/** More images than a surface can read. */
export const imageCount: Check = {
  id: 'image-count',
  find: (input) => {
    const readers = new Map(placedNodes(input).flatMap((node) => (node.node?.image === undefined ? [] : [[node.node.image, node.id]])));
    if (readers.size <= MOST_IMAGES) return [];
    return [
      {
        place: 'images',
        node: [...readers.values()][MOST_IMAGES],
        title: `This material reads ${readers.size} images; a surface can read ${MOST_IMAGES}.`,
        explanation:
          'Every graphics device can read at least 16 images at once; five are needed for light, shadow and glass. Pack grey maps into the channels of one image, or leave some out.',
      },
    ];
  },
};

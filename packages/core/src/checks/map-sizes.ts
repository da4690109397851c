import type { Check } from './check';
import { placedNodes } from './graph-places';
import { imageFeed } from './image-feeds';

/** How much larger one side may be: from here on details are lost, or memory is. */
const FAR_APART = 4;

/** Maps of one surface that do not fit onto each other. */
export const mapSizes: Check = {
  id: 'map-sizes',
  find: (input) => {
    const used = new Set(placedNodes(input).flatMap(({ inlets }) => inlets.flatMap((inlet) => imageFeed(input, inlet)?.image ?? [])));
    const maps = [...used].flatMap((id) => {
      const image = input.material.images[id];
      return image ? [{ id, ...image }] : [];
    });
    const [largest] = [...maps].sort((a, b) => b.width * b.height - a.width * a.height);
    if (!largest || maps.length < 2) return [];
    return maps.flatMap(({ id, name, width, height }) => {
      const size = `${width} × ${height}`;
      const other = `“${largest.name}” has ${largest.width} × ${largest.height}`;
      const otherShape = Math.abs(Math.log((width * largest.height) / (height * largest.width))) > 0.01;
      const small = largest.width >= width * FAR_APART;
      if (!otherShape && !small) return [];
      return [
        {
          place: `image/${id}`,
          title: `“${name || 'A map'}” has ${size} pixels, ${other}.`,
          explanation: otherShape
            ? 'Maps of another shape are stretched to the same UVs: what was painted in one lies beside what was painted in the other. Export all of a set at one size.'
            : 'A map that is much smaller shows as blur next to the others, or the others carry more pixels than are seen. Export all of a set at one size.',
        },
      ];
    });
  },
};

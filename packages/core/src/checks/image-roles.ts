import { setImageField } from '../document/material-edits';
import type { Check } from './check';
import { placedNodes } from './graph-places';

const NUMBER_OUTLETS = new Set(['red', 'green', 'blue']);

/** A colour image that is read as numbers, or data that are read as a colour. */
export const imageRoles: Check = {
  id: 'image-role',
  find: (input) => {
    const uses = new Map<string, { colour: boolean; numbers: boolean; node: string }>();
    for (const node of placedNodes(input)) {
      for (const { ribbon, type, spec } of node.inlets) {
        const source = ribbon && input.resolved.nodes.get(ribbon.from);
        const image = source?.kind.id === 'image' ? source.node?.image : undefined;
        if (!source || image === undefined || !ribbon) continue;
        const use = uses.get(image) ?? { colour: false, numbers: false, node: source.id };
        const meansColour = ribbon.outlet === 'colour' && (spec.meaning === 'colour' || type === 'colour' || type === 'light');
        const meansNumber =
          NUMBER_OUTLETS.has(ribbon.outlet) || (ribbon.outlet === 'colour' && (spec.meaning === 'normal' || type === 'number'));
        uses.set(image, { ...use, colour: use.colour || meansColour, numbers: use.numbers || meansNumber });
      }
    }
    return [...uses].flatMap(([id, { colour, numbers, node }]) => {
      const image = input.material.images[id];
      const wrong = image && ((image.role === 'colour' && numbers && !colour) || (image.role === 'data' && colour && !numbers));
      if (!image || !wrong) return [];
      const role = image.role === 'colour' ? 'data' : 'colour';
      return [
        {
          place: `image/${id}`,
          node,
          title: `“${image.name || 'An image'}” is read as ${image.role}, but used as ${role === 'data' ? 'numbers' : 'a colour'}.`,
          explanation:
            role === 'data'
              ? 'Colour images are decoded from sRGB to light, which bends their middle values: 50 % grey reads 0.21. Numbers such as roughness or height must be read as they are stored.'
              : 'Data are read as they are stored. A picture read so is not decoded from sRGB to light: it comes out washed out and too bright.',
          mend: { label: `Read it as ${role}`, document: 'material' as const, edit: setImageField(id, 'role', role) },
        },
      ];
    });
  },
};

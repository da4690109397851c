import { joinEdits } from '../document/edit';
import { setImageField } from '../document/material-edits';
import type { Check } from './check';
import { placedNodes } from './graph-places';

const AXES = [
  ['wrapX', 'beside each other'],
  ['wrapY', 'above each other'],
] as const;

/** An image that is to stand side by side, and is held at its edges instead. */
export const heldImage: Check = {
  id: 'held-image',
  find: (input) =>
    placedNodes(input).flatMap((node) => {
      const id = node.node?.image;
      const image = id === undefined ? undefined : input.material.images[id];
      const repeat = node.inlets.find(({ spec, ribbon }) => spec.name === 'repeat' && !ribbon) && node.node?.values['repeat'];
      if (id === undefined || !image || image.faces || !Array.isArray(repeat)) return [];
      const held = AXES.filter(([wrap], axis) => image[wrap] === 'clamp' && Math.abs(Number(repeat[axis])) > 1);
      if (held.length === 0) return [];
      const edits = held.map(([wrap]) => setImageField(id, wrap, 'repeat'));
      return [
        {
          place: `${node.id}/repeat`,
          node: node.id,
          title: `“${image.name || 'An image'}” is repeated ${held.map(([, words]) => words).join(' and ')}, but its wrap is “clamp”.`,
          explanation:
            'With wrap “clamp” an image shows its edge pixels beyond its edges, as stripes. Images whose opposite edges differ come in with “clamp”; repeated, they show a line where the edges meet.',
          mend: { label: 'Repeat it', document: 'material' as const, edit: joinEdits('Repeat an image', ...edits) },
        },
      ];
    }),
};

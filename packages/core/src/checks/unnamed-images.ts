import { setImageField } from '../document/material-edits';
import type { Check } from './check';

/** An image without a name. */
export const unnamedImages: Check = {
  id: 'unnamed-image',
  find: ({ material }) => {
    const taken = new Set(Object.values(material.images).map((image) => image.name));
    let count = 0;
    const freeName = (): string => {
      do count++;
      while (taken.has(`Image ${count}`));
      return `Image ${count}`;
    };
    return Object.entries(material.images).flatMap(([id, image]) => {
      if (image.name.trim() !== '') return [];
      const name = freeName();
      return [
        {
          place: `image/${id}`,
          title: 'An image has no name.',
          explanation: 'Programs that use this material find its images by name; without one this image cannot be replaced there.',
          mend: { label: `Call it “${name}”`, document: 'material' as const, edit: setImageField(id, 'name', name) },
        },
      ];
    });
  },
};

import { setImageField } from '../document/material-edits';
import type { Check, Finding } from './check';
import { meshesWearing } from './dressed-parts';
import { placedNodes } from './graph-places';
import { imageFeed } from './image-feeds';

/** What a mesh's file did not have matters to this material: its UVs, its tangents, the UVs of its occlusion. */
export const madeForMesh: Check = {
  id: 'made-for-mesh',
  find: (input) => {
    const { set, material } = input;
    if (!set) return [];
    const nodes = placedNodes(input);
    const images = new Set(nodes.flatMap(({ inlets }) => inlets.flatMap((inlet) => imageFeed(input, inlet)?.image ?? [])));
    const usesNormals = nodes.some(({ kind }) => kind.id === 'normalFromMap');
    const usesTangents = usesNormals || nodes.some(({ kind, node }) => kind.id === 'tangent' || node?.features?.includes('hasAnisotropy'));
    return meshesWearing(input).flatMap((id) => {
      const mesh = set.meshes[id];
      const made = new Set(mesh?.source?.made);
      if (!mesh || made.size === 0) return [];
      const found: Omit<Finding, 'check'>[] = [];
      if (made.has('uvs') && images.size > 0)
        found.push({
          place: `mesh/${id}/uvs`,
          title: `The file of “${mesh.name}” has no UVs: box-mapped ones were made.`,
          explanation:
            'UVs say where each point of the mesh lies on an image. The ones that were made are good for plain patterns; for painted maps export the mesh with its UVs, or use “Triplanar image”, which needs none.',
        });
      else if (made.has('tangents') && usesTangents && !made.has('uvs'))
        found.push({
          place: `mesh/${id}/tangents`,
          title: `The file of “${mesh.name}” has no tangents; they were made from its UVs.`,
          explanation:
            'A normal map is right only for the tangents it was baked with. If seams show, export the mesh with its tangents, or bake with MikkTSpace tangents, which are made from UVs as they are here.',
        });
      for (const image of images) {
        if (material.images[image]?.uvSet !== 1 || !made.has('secondUvs')) continue;
        found.push({
          place: `mesh/${id}/second/${image}`,
          title: `“${material.images[image]?.name}” lies on the second UVs, which the file of “${mesh.name}” does not have.`,
          explanation:
            'A baked map, mostly occlusion, fits only the UVs it was baked for. A second set without overlaps was made, but it is not the one the map was baked for: its shadows fall in wrong places.',
          mend: { label: 'Lay it on the first UVs', document: 'material', edit: setImageField(image, 'uvSet', 0) },
        });
      }
      return found;
    });
  },
};

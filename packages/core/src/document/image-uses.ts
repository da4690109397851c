import type { MaterialImage, Material } from '@brelvin/contract';
import type { Edit } from './edit';
import { graphsOf } from './graph-edits';

/** What shows an image: a node of the surface or of a group, or a parameter. */
export type ImageUse = { readonly node: string; readonly group?: string } | { readonly parameter: string };

/** What shows each image of a material, by the image's id; none for one that nothing shows. */
export function imageUses(material: Material): ReadonlyMap<string, readonly ImageUse[]> {
  const uses = new Map<string, ImageUse[]>(Object.keys(material.images).map((id) => [id, []]));
  for (const [{ group }, graph] of graphsOf(material))
    for (const [node, { image }] of Object.entries(graph.nodes)) if (image !== undefined) uses.get(image)?.push({ node, group });
  for (const [parameter, { image }] of Object.entries(material.parameters)) if (image !== undefined) uses.get(image)?.push({ parameter });
  return uses;
}

/** Other pixels for an image wherever it is shown; how it is read stays. */
export function replaceImage(
  material: Material,
  id: string,
  { asset, width, height }: Pick<MaterialImage, 'asset' | 'width' | 'height'>,
): Edit {
  const path = ['images', id];
  return {
    label: `Replace ${material.images[id]?.name || 'an image'}`,
    changes: [
      { path: [...path, 'asset'], value: asset },
      { path: [...path, 'width'], value: width },
      { path: [...path, 'height'], value: height },
    ],
  };
}

/** Has an image follow the workspace's image of a name, or keeps the copy it has. */
export function linkImage(id: string, linked: string | undefined): Edit {
  const path = ['images', id, 'linked'];
  return linked === undefined
    ? { label: 'Keep a copy of an image', changes: [{ path }] }
    : { label: 'Link an image', changes: [{ path, value: linked }] };
}

/** Takes images away that nothing shows. */
export function removeUnusedImages(material: Material): Edit {
  const unused = [...imageUses(material)].filter(([, uses]) => uses.length === 0).map(([id]) => id);
  return {
    label: unused.length === 1 ? 'Remove an unused image' : `Remove ${unused.length} unused images`,
    changes: unused.map((id) => ({ path: ['images', id] })),
  };
}

/** Bytes of an image on the device, with its mips: a third more than its pixels. */
export function imageMemory({ width, height }: Pick<MaterialImage, 'width' | 'height'>): number {
  return Math.round((width * height * 4 * 4) / 3);
}

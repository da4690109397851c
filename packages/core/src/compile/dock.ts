import type { RibbonType } from '@brelvin/contract';
import type { InletSpec } from '../catalogue/kind';
import type { MaterialSource } from '../document/material';

/** The places at the Stage's edge where a material's results arrive. */
export const DOCK_INLETS: readonly (InletSpec & { readonly type: RibbonType })[] = [
  {
    name: 'colour',
    label: 'Colour',
    meaning: 'light',
    type: 'light',
    default: { surface: 'lambert' },
    help: 'What the surface looks like: light from a lighting node, or a plain colour. Open, it is lit like plaster.',
  },
  {
    name: 'emission',
    label: 'Emission',
    meaning: 'colour',
    type: 'colour',
    default: { value: [0, 0, 0] },
    help: 'Light that the surface gives off by itself, on top of its colour.',
  },
  {
    name: 'opacity',
    label: 'Opacity',
    meaning: 'fraction',
    type: 'number',
    default: { value: [1] },
    help: 'How much the surface hides what is behind it: 0 nothing, 1 all. How it is used stands under “opacity”.',
  },
  {
    name: 'outline',
    label: 'Outline',
    meaning: 'colour',
    type: 'colour',
    default: { value: [0, 0, 0] },
    help: 'The colour of the line round it; open, it is black. Whether there is a line stands under “outline”.',
  },
  {
    name: 'offset',
    label: 'Offset',
    meaning: 'vector',
    type: 'vec3',
    default: { value: [0, 0, 0] },
    help: 'How far each vertex is moved, in metres of world space. The nodes of “Shape” give such offsets; normals follow.',
  },
];

/** Where the graph of a field ends. */
const FIELD_DOCK: typeof DOCK_INLETS = [
  {
    name: 'field',
    label: 'Field',
    meaning: 'field',
    type: 'field',
    default: { value: [1] },
    help: 'How far the surface is from each place, below 0 inside, and whose region it is. A plain distance has no region.',
  },
];

/** The places at the edge of a graph: a material's, or a field's. */
export function dockInlets({ field }: Pick<MaterialSource, 'field'>): typeof DOCK_INLETS {
  return field ? FIELD_DOCK : DOCK_INLETS;
}

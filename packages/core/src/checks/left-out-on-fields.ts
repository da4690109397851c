import { readCode } from '../compile/code/read-code';
import { setOutlineField } from '../document/material-edits';
import type { Check, CheckInput, Finding } from './check';
import { meshesWearing } from './dressed-parts';

/** What a material has that a field leaves out: it has no vertices, and hides what is behind it. */
export const leftOutOnFields: Check = {
  id: 'left-out-on-fields',
  find: (input) => {
    const field = meshesWearing(input)
      .map((id) => input.set?.meshes[id])
      .find((mesh) => mesh?.shape === 'field');
    return field ? leftOut(input, field.name) : [];
  },
};

function leftOut({ material, catalogue, bench = '', seenThrough }: CheckInput, field: string): Omit<Finding, 'check'>[] {
  const found: Omit<Finding, 'check'>[] = [];
  if (material.outline?.method === 'hull')
    found.push({
      place: 'outline',
      title: `There is no outline round “${field}”.`,
      explanation:
        'A hull is the mesh grown a little, and a field has no vertices that could be grown. Edges are found in the picture, and are drawn round fields, too.',
      mend: { label: 'Draw edges', document: 'material', edit: setOutlineField('method', 'edges') },
    });
  const seen = seenThrough?.get(bench);
  if (seen !== undefined && seen !== 'glass')
    found.push({
      place: 'opacity',
      title: `“${field}” is not seen through.`,
      explanation: 'Along each line of sight a field is met once. What this material leaves open is drawn as if it were solid there.',
    });
  const { code, surface } = material;
  if (code ? readCode(code, catalogue).program?.has.shape : surface.ribbons['dock.offset'])
    found.push({
      place: 'shape',
      title: `The shape moves nothing of “${field}”.`,
      explanation:
        'A field has no vertices. What is to be displaced goes into its text: displaced(distance, amount, slope) moves its surface by any number.',
    });
  return found;
}

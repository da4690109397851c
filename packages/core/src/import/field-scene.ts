import { surfaceNets } from '../field/surface-nets';
import { fieldSource } from '../mesh/field-source';
import { ImportRefused, type ImportedScene } from './imported-scene';

/** Cells along the longest edge of a field that becomes a mesh. */
export const NET_CELLS = { low: 16, high: 256, default: 96 } as const;

/**
 * A field as a mesh: its surface as triangles, each region a part.
 *
 * @param numbers of the field as a set holds them: the box in which it is looked for
 * @param cells along its longest edge
 * @throws FormulaError for a text that cannot be read; ImportRefused where there is no surface
 */
export function fieldScene(
  text: string,
  numbers: Readonly<Record<string, number>>,
  cells: number,
  onShare: (share: number) => void = () => undefined,
): ImportedScene {
  const { sampler, bounds, slope, program, moves } = fieldSource(text, numbers);
  const asked = Math.min(Math.max(Math.round(cells), NET_CELLS.low), NET_CELLS.high);
  const longest = Math.max(...bounds.high.map((each, axis) => each - (bounds.low[axis] ?? 0)));
  const pieces = surfaceNets(sampler, bounds, asked, slope, onShare);
  if (pieces.length === 0) throw new ImportRefused('It has no surface in its box, or none that is as thick as a cell.');
  return {
    name: 'field',
    pieces: pieces.map(({ part, positions, normals, indices }) => ({
      name: program.regions[part]?.name ?? 'field',
      positions,
      normals,
      indices,
      flat: false,
    })),
    materials: [],
    images: [],
    words: [
      `Cells of ${Number((longest / asked).toPrecision(2))} m: what is thinner may be lost, and edges are cut.`,
      ...(moves ? ['It moves with the clock: the mesh is what it is at the start.'] : []),
    ],
  };
}

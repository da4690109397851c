import type { FieldSource } from '../field-source';
import { placeColours, type MeshData } from '../mesh';
import { cube } from './cube';

/** The box in which a field is traced; each of its regions is a part that is drawn all over it. */
export function fieldBox({ bounds, program }: Pick<FieldSource, 'bounds' | 'program'>): MeshData {
  const box = cube({ size: 1, segments: 1, smooth: false });
  const positions = box.positions.map((each, index) => {
    const [low, high] = [bounds.low[index % 3] ?? 0, bounds.high[index % 3] ?? 0];
    return (low + high) / 2 + each * (high - low);
  });
  const parts = program.regions.map(({ name }) => ({ name, first: 0, count: box.indices.length }));
  return { ...box, positions, colours: placeColours(positions, bounds), bounds, parts };
}

import type { Outline } from '@brelvin/contract';
import type { FrameItem } from './frame-item';
import { libraryBlock } from './uniforms';

/** A part of an open mesh's size by which its grown mesh lies farther back than itself. */
const BEHIND = 0.02;

/** Items of which the same line is drawn, numbered one after the other. */
export interface LineGroup {
  readonly items: readonly FrameItem[];
  readonly outline: Outline;
  readonly first: number;
  readonly last: number;
}

/** Items whose material grows an outline round them. */
export function hullItems(items: readonly FrameItem[], hidden: boolean): readonly FrameItem[] {
  return items.filter(({ material, surface }) => {
    const outline = material?.outline;
    return surface?.has('hull') && outline?.method === 'hull' && outline.hidden === hidden && outline.width > 0;
  });
}

/** Items with lines where the picture breaks, by line. */
export function lineGroups(items: readonly FrameItem[]): readonly LineGroup[] {
  const byLine = new Map<string, { outline: Outline; items: FrameItem[] }>();
  for (const item of items) {
    const outline = item.material?.outline;
    if (outline?.method !== 'edges' || !item.surface?.has('lines') || outline.width <= 0) continue;
    const key = `${outline.width} ${outline.unit} ${outline.hidden}`;
    const known = byLine.get(key) ?? { outline, items: [] };
    known.items.push(item);
    byLine.set(key, known);
  }
  let count = 0;
  return [...byLine.values()].map(({ outline, items }) => ({ outline, items, first: count + 1, last: (count += items.length) }));
}

/** Writes each item's width and number into its block `Object`. */
export function markOutlines(items: readonly FrameItem[], groups: readonly LineGroup[]): void {
  const numbers = new Map(groups.flatMap(({ items, first }) => items.map((item, index) => [item, first + index] as const)));
  const offset = libraryBlock('Object').members.get('partOutline')?.offset ?? 0;
  items.forEach((item, index) => {
    const { mesh, material, part } = item;
    const { width = 0, unit = 'pixels' } = material?.outline ?? {};
    const extent = Math.max(...mesh.bounds.high.map((high, axis) => high - (mesh.bounds.low[axis] ?? 0)));
    const metres = unit === 'metres' ? width : 0;
    const behind = mesh.closed ? 0 : extent * BEHIND + metres;
    const object = part?.object ?? mesh.object;
    object.words.set([metres, unit === 'pixels' ? width : 0, behind, numbers.get(item) ?? -1 - index], offset);
    object.upload();
  });
}

import type { OrbitCamera } from '@brelvin/contract';
import type { FrameItem } from './frame-item';
import { farFirst, isUnordered, isSeenThrough } from './see-through';
import type { PipelineState } from './program-pipelines';

/** One side of something that is drawn after all that hides what is behind it. */
export interface Layer {
  readonly item: FrameItem;
  /** Whether it is to see what was drawn just before it, too. */
  readonly looksAnew: boolean;
}

/** How many layers besides the first one see those right behind them: two things, each with two sides. */
const LOOKING_ANEW = 4;

/**
 * The order in which what is drawn later is laid over the rest: glass and what looks behind itself first, from the farthest
 * on, its back before its front; then what is seen through. The nearest things see the things behind them; those still
 * farther away only what hides.
 */
export function layersOf(items: readonly FrameItem[], camera: OrbitCamera): Layer[] {
  const sorted = farFirst(items, camera).map((item): FrameItem => {
    const copies = item.part?.instancesFarFirst?.(camera);
    return copies && item.part ? { ...item, part: { ...item.part, instances: copies } } : item;
  });
  const glass = sorted.filter(({ surface }) => !isSeenThrough(surface)).flatMap(sidesOf);
  const over = sorted.filter((item) => isSeenThrough(item.surface) && !isUnordered(item)).flatMap(sidesOf);
  const firstLook = over.findIndex(looks);
  return [
    ...glass.map((item, index): Layer => ({ item, looksAnew: looks(item) && (index === 0 || index >= glass.length - LOOKING_ANEW) })),
    ...over.map((item, index): Layer => ({ item, looksAnew: index === firstLook })),
  ];
}

function looks({ surface }: FrameItem): boolean {
  return surface?.compiled.readsSceneColour === true;
}

function sidesOf(item: FrameItem): FrameItem[] {
  const { surface, mesh, part } = item;
  const cull = part?.cull ?? (mesh.closed ? 'back' : 'none');
  // Of glass the far wall is seen through the near one; of a sheet, the side that faces away.
  const both = cull === 'none' ? isSeenThrough(surface) || surface?.compiled.transmits : cull === 'back' && surface?.compiled.transmits;
  return (both ? (['front', 'back'] as const) : [cull]).map((side) => withSides(item, side));
}

/** An item of which only these sides are drawn. */
function withSides(item: FrameItem, cull: PipelineState['cull']): FrameItem {
  const { mesh, part } = item;
  const whole = { first: 0, count: mesh.indexCount, object: mesh.object, instances: mesh.inPlace, instanceCount: 1, mirrored: false };
  return { ...item, part: { ...whole, ...part, cull } };
}

import type { Rectangle } from './placed-graph';

/** Kept free between cards, graph units. */
const GAP = 12;
const STEP = 20;
const MOST_STEPS = 200;

/** The place nearest above or below the wanted one at which a card of that size covers no other. */
export function freePlace(wanted: Rectangle, others: readonly Rectangle[]): { readonly x: number; readonly y: number } {
  const { x, width, height } = wanted;
  const beside = others.filter((other) => other.x < x + width + GAP && x < other.x + other.width + GAP);
  for (let step = 0; step < MOST_STEPS; step++) {
    const y = wanted.y + (step % 2 === 0 ? 1 : -1) * Math.ceil(step / 2) * STEP;
    if (beside.every((other) => y + height + GAP <= other.y || other.y + other.height + GAP <= y)) return { x, y };
  }
  return { x, y: wanted.y };
}

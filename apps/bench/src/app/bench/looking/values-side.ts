import type { Rectangle } from '../editors/placed-graph';

/** Where values of an outlet stand: on the ribbons that leave it, within its row, over the card, under it; or nowhere. */
export type ValuesSide = 'beside' | 'within' | 'above' | 'below' | 'nowhere';

/** Between a card and its values, graph units. */
const GAP = 6;

/**
 * Beside the card where no other card lies; else where they cover neither a title nor a number. Where there is no such place
 * they are in the table only.
 *
 * @param middle of the outlet, down
 * @param size of the values
 * @param room of an outlet with a row of its own: how much of the row is empty
 */
export function valuesSide(
  card: Rectangle,
  middle: number,
  size: { readonly width: number; readonly height: number },
  others: readonly Rectangle[],
  room?: number,
): ValuesSide {
  const right = card.x + card.width;
  const isFree = (x: number, y: number): boolean =>
    others.every(
      (other) => x + size.width <= other.x || other.x + other.width <= x || y + size.height <= other.y || other.y + other.height <= y,
    );
  if (isFree(right + GAP, middle - size.height / 2)) return 'beside';
  if (room !== undefined) return size.width <= room ? 'within' : 'nowhere';
  if (isFree(right - size.width, card.y - size.height - GAP)) return 'above';
  return isFree(right - size.width, card.y + card.height + GAP) ? 'below' : 'nowhere';
}

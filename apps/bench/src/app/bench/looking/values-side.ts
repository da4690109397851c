import type { Rectangle } from '../editors/placed-graph';

/** Where values of an outlet stand: on the ribbons that leave it, within its row, over the card, or under it. */
export type ValuesSide = 'beside' | 'within' | 'above' | 'below';

/** Between a card and its values, graph units. */
const GAP = 6;

/**
 * Beside the card where no other card lies; else where they cover neither a title nor a number.
 *
 * @param middle of the outlet, down
 * @param size of the values
 * @param inRow the outlet has a row of its own, of which the left half is empty
 */
export function valuesSide(
  card: Rectangle,
  middle: number,
  size: { readonly width: number; readonly height: number },
  others: readonly Rectangle[],
  inRow: boolean,
): ValuesSide {
  const right = card.x + card.width;
  const isFree = (x: number, y: number): boolean =>
    others.every(
      (other) => x + size.width <= other.x || other.x + other.width <= x || y + size.height <= other.y || other.y + other.height <= y,
    );
  if (isFree(right + GAP, middle - size.height / 2)) return 'beside';
  if (inRow) return 'within';
  return isFree(right - size.width, card.y - size.height - GAP) ? 'above' : 'below';
}

export interface TidyBox {
  readonly id: string;
  readonly width: number;
  readonly height: number;
}

export type TidyPlace = readonly [id: string, at: { readonly x: number; readonly y: number }];

/** How much wider than high a tidy graph is at least, as the surface it lies on is. */
const SHAPE = 1.5;
/** Graph units. Columns are not made lower than this. */
const LOWEST = 480;
const BETWEEN_COLUMNS = 64;
const BETWEEN_CARDS = 28;
const LOWER = 0.9;

/**
 * Layers from left to right that became a tower: high layers are broken into columns beside each other, so that the whole is
 * a landscape. Nothing within a layer is connected, so ribbons still run to the right.
 *
 * @param places top left corners; cards of one layer have one middle across
 */
export function asLandscape(boxes: readonly TidyBox[], places: readonly TidyPlace[]): TidyPlace[] {
  const layers = layersOf(boxes, places);
  let highest = Math.max(...layers.map(stackHeight));
  if (layersWidth(layers, highest) >= SHAPE * highest) return [...places];
  while (highest > LOWEST && layersWidth(layers, highest) < SHAPE * highest) highest *= LOWER;
  const placed: TidyPlace[] = [];
  let x = 0;
  for (const layer of layers)
    for (const column of columnsOf(layer, highest)) {
      const width = Math.max(...column.map((box) => box.width));
      let y = -stackHeight(column) / 2;
      for (const box of column) {
        placed.push([box.id, { x: x + (width - box.width) / 2, y }]);
        y += box.height + BETWEEN_CARDS;
      }
      x += width + BETWEEN_COLUMNS;
    }
  return placed;
}

/** Cards with one middle across, from the left; each from the top. */
function layersOf(boxes: readonly TidyBox[], places: readonly TidyPlace[]): TidyBox[][] {
  const at = new Map(places);
  const layers = new Map<number, TidyBox[]>();
  for (const box of boxes) {
    const middle = Math.round((at.get(box.id)?.x ?? 0) + box.width / 2);
    layers.set(middle, [...(layers.get(middle) ?? []), box]);
  }
  const top = ({ id }: TidyBox): number => at.get(id)?.y ?? 0;
  return [...layers].sort(([a], [b]) => a - b).map(([, layer]) => layer.sort((a, b) => top(a) - top(b)));
}

/** Neighbours go to columns beside each other, so that each stays about as high as it was. */
function columnsOf(layer: readonly TidyBox[], highest: number): TidyBox[][] {
  const count = columnCount(layer, highest);
  const columns: TidyBox[][] = Array.from({ length: count }, () => []);
  layer.forEach((box, index) => columns[index % count]?.push(box));
  return columns;
}

function columnCount(layer: readonly TidyBox[], highest: number): number {
  return Math.min(layer.length, Math.ceil(stackHeight(layer) / highest));
}

function layersWidth(layers: readonly (readonly TidyBox[])[], highest: number): number {
  const widths = layers.map((layer) => columnCount(layer, highest) * (Math.max(...layer.map((box) => box.width)) + BETWEEN_COLUMNS));
  return widths.reduce((sum, width) => sum + width, -BETWEEN_COLUMNS);
}

function stackHeight(stack: readonly TidyBox[]): number {
  return stack.reduce((sum, box) => sum + box.height + BETWEEN_CARDS, -BETWEEN_CARDS);
}

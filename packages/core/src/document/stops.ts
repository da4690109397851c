/** Stops that a gradient has at most. */
export const MOST_STOPS = 8;

/**
 * The colour of a gradient at a place: linear between neighbouring stops in scene-linear light, as the node *Gradient* has it.
 *
 * @param stops red, green, blue (scene-linear Rec. 709) and place 0…1, one stop after the other, in order
 */
export function colourOfStops(stops: readonly number[], at: number): readonly [number, number, number] {
  const count = Math.floor(stops.length / 4);
  const number = (stop: number, part: number): number => stops[stop * 4 + part] ?? 0;
  let colour: readonly [number, number, number] = [number(0, 0), number(0, 1), number(0, 2)];
  for (let stop = 1; stop < count; stop++) {
    const width = number(stop, 3) - number(stop - 1, 3);
    const t = width > 1e-6 ? Math.min(Math.max((at - number(stop - 1, 3)) / width, 0), 1) : at >= number(stop, 3) ? 1 : 0;
    const [red, green, blue] = colour;
    colour = [red + (number(stop, 0) - red) * t, green + (number(stop, 1) - green) * t, blue + (number(stop, 2) - blue) * t];
  }
  return colour;
}

/** The same gradient with all its places moved. */
export function movedStops(stops: readonly number[], by: number): readonly number[] {
  return stops.map((each, index) => (index % 4 === 3 ? each + by : each));
}

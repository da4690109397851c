import { colourOfStops, MOST_STOPS } from '@brelvin/core';

/** A stop of a gradient: linear colour and place 0…1. */
export interface GradientStop {
  readonly colour: readonly [number, number, number];
  readonly at: number;
}

export { MOST_STOPS };

export function stopsFromValue(value: readonly number[]): GradientStop[] {
  const stops: GradientStop[] = [];
  for (let index = 0; index + 3 < value.length; index += 4) {
    stops.push({ colour: [value[index] ?? 0, value[index + 1] ?? 0, value[index + 2] ?? 0], at: value[index + 3] ?? 0 });
  }
  return stops;
}

export function valueFromStops(stops: readonly GradientStop[]): number[] {
  return stops.flatMap((stop) => [...stop.colour, stop.at]);
}

/** The colour of a gradient at a place: linear between neighbouring stops. */
export function colourAt(stops: readonly GradientStop[], at: number): readonly [number, number, number] {
  return colourOfStops(valueFromStops(stops), at);
}

/** Adds a stop of the colour that is there, so that nothing changes yet. */
export function addStop(stops: readonly GradientStop[], at: number): { stops: GradientStop[]; index: number } | undefined {
  if (stops.length >= MOST_STOPS) return undefined;
  const index = stops.filter((stop) => stop.at <= at).length;
  const added: GradientStop = { colour: colourAt(stops, at), at };
  return { stops: [...stops.slice(0, index), added, ...stops.slice(index)], index };
}

/** Moves a stop between its neighbours. */
export function moveStop(stops: readonly GradientStop[], index: number, at: number): GradientStop[] {
  const low = stops[index - 1]?.at ?? 0;
  const high = stops[index + 1]?.at ?? 1;
  return stops.map((stop, each) => (each === index ? { ...stop, at: Math.min(Math.max(at, low), high) } : stop));
}

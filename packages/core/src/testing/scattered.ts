/** Places in a cube round the origin, scattered without a period: the same each time. @param reach half of its edge */
export function scatteredPlaces(count: number, reach: number): number[][] {
  return Array.from({ length: count }, (_, index) =>
    [0.7548776662, 0.5698402911, 0.3819660113].map((pace) => (((index + 1) * pace) % 1) * 2 * reach - reach),
  );
}

/** How far two pictures are apart, over their red, green and blue as encoded, 0…255. */
export interface PictureDifference {
  readonly mean: number;
  readonly largest: number;
  /** Part of the pixels of which any channel differs by more than the dither does, 0…1. */
  readonly share: number;
}

/** Dither alone moves a value by one step at most. */
const DITHER = 1;

/**
 * @param a RGBA rows, 8 bit
 * @throws RangeError for pictures of different size
 */
export function pictureDifference(a: Uint8Array, b: Uint8Array): PictureDifference {
  if (a.length !== b.length) throw new RangeError('only pictures of one size can be compared');
  let [sum, largest, differing] = [0, 0, 0];
  for (let at = 0; at < a.length; at += 4) {
    let worst = 0;
    for (let channel = at; channel < at + 3; channel++) {
      const away = Math.abs((a[channel] ?? 0) - (b[channel] ?? 0));
      sum += away;
      if (away > worst) worst = away;
    }
    if (worst > DITHER) differing++;
    if (worst > largest) largest = worst;
  }
  const pixels = a.length / 4;
  return pixels === 0 ? { mean: 0, largest: 0, share: 0 } : { mean: sum / pixels / 3, largest, share: differing / pixels };
}

const bits = new DataView(new ArrayBuffer(4));

/** The 16 bits of the nearest half float (IEEE 754-2008, binary16; halves to even). Too large numbers become infinite. */
export function halfOfFloat(value: number): number {
  bits.setFloat32(0, value);
  const word = bits.getUint32(0);
  const sign = (word >>> 16) & 0x8000;
  const exponent = (word >>> 23) & 0xff;
  const fraction = word & 0x7fffff;
  if (exponent === 0xff) return sign | 0x7c00 | (fraction ? 0x200 : 0);
  const half = exponent - 112;
  if (half >= 31) return sign | 0x7c00;
  if (half > 0) return sign + rounded((half << 23) | fraction, 13);
  // Denormal: the leading 1 is written out and moved down.
  return half < -10 ? sign : sign + rounded(fraction | 0x800000, 14 - half);
}

/** Without its last bits, halves to even. A carry goes on into the exponent, which is right. */
function rounded(word: number, drop: number): number {
  const kept = word >>> drop;
  const rest = word & ((1 << drop) - 1);
  const half = 1 << (drop - 1);
  return rest > half || (rest === half && (kept & 1) === 1) ? kept + 1 : kept;
}

export function floatOfHalf(half: number): number {
  const sign = half & 0x8000 ? -1 : 1;
  const exponent = (half >>> 10) & 0x1f;
  const fraction = half & 0x3ff;
  if (exponent === 31) return fraction ? NaN : sign * Infinity;
  return exponent === 0 ? sign * fraction * 2 ** -24 : sign * (1 + fraction / 1024) * 2 ** (exponent - 15);
}

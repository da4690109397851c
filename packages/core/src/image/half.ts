const floats = new Float32Array(1);
const bits = new Uint32Array(floats.buffer);

/** The largest number that 16 bits hold. */
export const LARGEST_HALF = 65504;

/**
 * The bits of a number as IEEE 754-2008 binary16, to the nearest; what is larger than it holds becomes its largest, and what
 * is no number 0.
 */
export function halfBits(value: number): number {
  if (Number.isNaN(value)) return 0;
  floats[0] = Math.min(Math.max(value, -LARGEST_HALF), LARGEST_HALF);
  const word = bits[0] ?? 0;
  const sign = (word >>> 16) & 0x8000;
  const exponent = ((word >>> 23) & 0xff) - 112;
  const mantissa = word & 0x7fffff;
  if (exponent >= 1) {
    // A carry out of the mantissa goes on into the exponent, as it must.
    const rounded = (exponent << 10) + ((mantissa + 0xfff + ((mantissa >>> 13) & 1)) >>> 13);
    return sign | Math.min(rounded, 0x7bff);
  }
  if (exponent < -10) return sign;
  const whole = mantissa | 0x800000;
  const shift = 14 - exponent;
  const half = (1 << (shift - 1)) - 1 + ((whole >>> shift) & 1);
  return sign | ((whole + half) >>> shift);
}

/** The number that 16 bits stand for. */
export function halfValue(half: number): number {
  const sign = half & 0x8000 ? -1 : 1;
  const exponent = (half >>> 10) & 0x1f;
  const mantissa = half & 0x3ff;
  if (exponent === 31) return mantissa ? NaN : sign * Infinity;
  return sign * (exponent === 0 ? mantissa * 2 ** -24 : (1 + mantissa / 1024) * 2 ** (exponent - 15));
}

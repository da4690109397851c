/**
 * Between scene-linear Rec. 709 and the sRGB encoding, IEC 61966-2-1:1999, one component at a time. Values
 * outside 0…1 go on along the same curves, odd about 0.
 */
export function srgbFromLinear(linear: number): number {
  const size = Math.abs(linear);
  const encoded = size <= 0.0031308 ? size * 12.92 : 1.055 * size ** (1 / 2.4) - 0.055;
  return Math.sign(linear) * encoded;
}

export function linearFromSrgb(encoded: number): number {
  const size = Math.abs(encoded);
  const linear = size <= 0.04045 ? size / 12.92 : ((size + 0.055) / 1.055) ** 2.4;
  return Math.sign(encoded) * linear;
}

/** `#rrggbb` of a linear colour, clipped to what a screen shows. */
export function hexFromLinear(colour: readonly number[]): string {
  return `#${[0, 1, 2]
    .map((index) =>
      byte(colour[index] ?? 0)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
}

function byte(linear: number): number {
  return Math.round(srgbFromLinear(Math.min(Math.max(linear, 0), 1)) * 255);
}

/** Reads `#rrggbb` or `#rgb`, with or without the sign; undefined for anything else. */
export function linearFromHex(text: string): [number, number, number] | undefined {
  const digits = /^#?([0-9a-f]{3}|[0-9a-f]{6})$/i.exec(text.trim())?.[1];
  if (!digits) return undefined;
  const size = digits.length / 3;
  const part = (index: number): number => {
    const pair = digits.slice(index * size, index * size + size);
    return linearFromSrgb(parseInt(size === 1 ? pair + pair : pair, 16) / 255);
  };
  return [part(0), part(1), part(2)];
}

/** Hue 0…1, saturation and value 0…1 of an sRGB-encoded colour (Smith 1978, "Color gamut transform pairs"). */
export function hsvFromSrgb([red = 0, green = 0, blue = 0]: readonly number[]): [number, number, number] {
  const value = Math.max(red, green, blue);
  const range = value - Math.min(red, green, blue);
  if (range <= 0) return [0, 0, value];
  const sixth = value === red ? (green - blue) / range : value === green ? 2 + (blue - red) / range : 4 + (red - green) / range;
  return [(((sixth / 6) % 1) + 1) % 1, range / value, value];
}

export function srgbFromHsv([hue, saturation, value]: readonly [number, number, number]): [number, number, number] {
  const channel = (offset: number): number => {
    const k = (offset + hue * 6) % 6;
    return value - value * saturation * Math.max(0, Math.min(k, 4 - k, 1));
  };
  return [channel(5), channel(3), channel(1)];
}

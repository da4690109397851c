import { createHash } from 'node:crypto';
import { LABELS, labelPixels, type LabelName } from '@brelvin/core';
import { PNG } from 'pngjs';

/** The demo's images as PNG files. */
export function demoImages(): { readonly name: string; readonly label: LabelName; readonly sha256: string; readonly file: Buffer }[] {
  return LABELS.map((label) => {
    const { width, height, data } = labelPixels(label);
    const png = new PNG({ width, height });
    png.data = Buffer.from(data);
    const file = PNG.sync.write(png, { deflateLevel: 9, deflateStrategy: 0 });
    return { name: `label-${label}.png`, label, sha256: createHash('sha256').update(file).digest('hex'), file };
  });
}

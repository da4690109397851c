import { createHash } from 'node:crypto';
import { DEMO_ENVIRONMENTS, DEMO_IMAGES, demoPanorama, writeRadiance } from '@brelvin/core';
import { PNG } from 'pngjs';

/** A file of the demo, and what the demo documents call it. */
export interface DemoFile {
  readonly name: string;
  readonly type: string;
  readonly asset: string;
  readonly sha256: string;
  readonly file: Buffer;
}

let drawn: readonly DemoFile[] | undefined;

/** The demo's images as PNG files; drawn once, which takes seconds. */
export function demoImages(): readonly DemoFile[] {
  return (drawn ??= DEMO_IMAGES.map(({ name, asset, pixels }) => {
    const { width, height, data } = pixels();
    const png = new PNG({ width, height });
    png.data = Buffer.from(data);
    return demoFile(name, 'image/png', asset, PNG.sync.write(png, { deflateLevel: 6 }));
  }));
}

/** The demo's environments as Radiance files. */
export function demoEnvironments(): DemoFile[] {
  return Object.values(DEMO_ENVIRONMENTS).flatMap(({ id, asset }) => {
    const picture = demoPanorama(asset);
    return picture ? [demoFile(`${id}.hdr`, 'image/vnd.radiance', asset, Buffer.from(writeRadiance(picture)))] : [];
  });
}

function demoFile(name: string, type: string, asset: string, file: Buffer): DemoFile {
  return { name, type, asset, sha256: createHash('sha256').update(file).digest('hex'), file };
}

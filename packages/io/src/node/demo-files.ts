import { createHash } from 'node:crypto';
import type { BrelvinDocument, Material, RigEnvironment } from '@brelvin/contract';
import {
  DEMO_DOCUMENTS,
  DEMO_ENVIRONMENTS,
  DEMO_IMAGES,
  demoPanorama,
  panoramaHarmonics,
  toldHarmonics,
  writeRadiance,
} from '@brelvin/core';
import { pngFile } from './png-file';

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
    const { data, ...size } = pixels();
    return demoFile(name, 'image/png', asset, pngFile(size, data));
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

/** The demo's documents, which name its files by their real addresses. */
export function demoWithFiles(): {
  readonly documents: readonly { readonly id: string; readonly document: BrelvinDocument }[];
  readonly files: readonly DemoFile[];
} {
  const files = [...demoImages(), ...demoEnvironments()];
  const addresses = new Map(files.map(({ asset, sha256 }) => [asset, sha256]));
  return { documents: DEMO_DOCUMENTS.map(({ id, document }) => ({ id, document: readdressed(document, addresses) })), files };
}

/** Packing differs between versions of zlib, so a picture's address is known only once it is packed. */
function readdressed(document: BrelvinDocument, addresses: ReadonlyMap<string, string>): BrelvinDocument {
  const real = (asset: string): string => addresses.get(asset) ?? asset;
  if (document.format === 'brelvin-light-rig' && document.environment)
    return {
      ...document,
      environment: { ...document.environment, ...told(document.environment), assets: document.environment.assets.map(real) },
    };
  if (document.format !== 'brelvin-material') return document;
  const images = Object.entries(document.images).map(([id, image]) => [id, { ...image, asset: real(image.asset) }]);
  return { ...document, images: Object.fromEntries(images) as Material['images'] };
}

/** The light of a demo environment, so that rigs which it only lights need no file. */
function told({ assets: [asset] }: RigEnvironment): Pick<RigEnvironment, 'light'> {
  const picture = demoPanorama(asset);
  return picture ? { light: toldHarmonics(panoramaHarmonics(picture)) } : {};
}

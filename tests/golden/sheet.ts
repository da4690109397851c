import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { PNG } from 'pngjs';
import type { BrowserDevice } from '../browser/support/browser';
import { runInPage } from '../support/device-page';
import { RIGS, SIDE } from './draw-demos';
import type { DemoPictures } from './draw-kept';

const SHEET = fileURLToPath(new URL('./demos.png', import.meta.url));

export interface DemoPicture {
  readonly name: string;
  readonly pixels: Uint8Array;
}

/** The demos as they are drawn now, and the language of what drew them. */
export async function drawnNow(device: BrowserDevice = 'webgl2'): Promise<{ readonly target: string; readonly pictures: DemoPicture[] }> {
  const { names, pixels, target } = await runInPage<DemoPictures>(fileURLToPath(new URL('./draw-kept.ts', import.meta.url)), device);
  const all = Buffer.from(pixels, 'base64');
  const bytes = SIDE * SIDE * 4;
  return { target, pictures: names.map((name, index) => ({ name, pixels: all.subarray(index * bytes, (index + 1) * bytes) })) };
}

/** The pictures that were looked at and kept: rigs across, demos down. */
export function kept(): Uint8Array[] {
  const { width, height, data } = PNG.sync.read(readFileSync(SHEET));
  const [columns, rows] = [width / SIDE, height / SIDE];
  return Array.from({ length: columns * rows }, (_, index) => {
    const [left, top] = [(index % columns) * SIDE, Math.floor(index / columns) * SIDE];
    const lines = Array.from({ length: SIDE }, (_, y) =>
      data.subarray(((top + y) * width + left) * 4, ((top + y) * width + left + SIDE) * 4),
    );
    return Buffer.concat(lines);
  });
}

export function keep(pictures: readonly DemoPicture[]): void {
  const columns = RIGS.length;
  const sheet = new PNG({ width: columns * SIDE, height: Math.ceil(pictures.length / columns) * SIDE });
  pictures.forEach(({ pixels }, index) => {
    const [left, top] = [(index % columns) * SIDE, Math.floor(index / columns) * SIDE];
    for (let y = 0; y < SIDE; y++) sheet.data.set(pixels.subarray(y * SIDE * 4, (y + 1) * SIDE * 4), ((top + y) * sheet.width + left) * 4);
  });
  writeFileSync(SHEET, PNG.sync.write(sheet));
}

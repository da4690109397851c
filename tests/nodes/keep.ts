import { mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { PNG } from 'pngjs';
import { runInPage } from '../support/device-page';
import { SIDE, type KindPictures } from './draw-kinds';

// Makes the small pictures of docs/nodes.md anew.
const folder = fileURLToPath(new URL('../../docs/nodes/', import.meta.url));
const { ids, pixels } = await runInPage<KindPictures>(fileURLToPath(new URL('./draw-kinds.ts', import.meta.url)));
const all = Buffer.from(pixels, 'base64');
const bytes = SIDE * SIDE * 4;
mkdirSync(folder, { recursive: true });
for (const old of readdirSync(folder)) rmSync(join(folder, old));
ids.forEach((id, index) => {
  const picture = new PNG({ width: SIDE, height: SIDE });
  picture.data.set(all.subarray(index * bytes, (index + 1) * bytes));
  writeFileSync(join(folder, `${id}.png`), PNG.sync.write(picture));
});
console.log(`${ids.length} pictures made.`);

import { mkdirSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { DRAWN_FROM, demoDigests } from '../../apps/server/src/demo-pictures';
import { DEMO_PICTURES } from '../../apps/server/src/folders';
import { runInPage } from '../support/device-page';
import { drawnNow, keep } from './sheet';

// Keeps the demos as they are drawn now: the sheet that specs compare with, and the pictures that a fresh start shows. Look at both before they are committed.
const { pictures: sheet } = await drawnNow();
keep(sheet);
const pictures = await runInPage<Record<string, string>>(fileURLToPath(new URL('./draw-pictures.ts', import.meta.url)));
mkdirSync(DEMO_PICTURES, { recursive: true });
for (const old of readdirSync(DEMO_PICTURES)) rmSync(join(DEMO_PICTURES, old));
for (const [id, png] of Object.entries(pictures)) writeFileSync(join(DEMO_PICTURES, `${id}.png`), Buffer.from(png, 'base64'));
writeFileSync(join(DEMO_PICTURES, DRAWN_FROM), `${JSON.stringify(demoDigests(), null, 2)}\n`);
console.log(`${sheet.length} pictures on the sheet, ${Object.keys(pictures).length} for lists kept.`);

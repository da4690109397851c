import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { runInPage } from '../support/device-page';

// Every demo in every rig on one sheet, to be looked at: would one hang these pictures on a wall?
const { png } = await runInPage<{ png: string }>(fileURLToPath(new URL('./draw-sheet.ts', import.meta.url)));
writeFileSync(fileURLToPath(new URL('../../docs/demos.png', import.meta.url)), Buffer.from(png, 'base64'));
console.log('docs/demos.png is kept.');

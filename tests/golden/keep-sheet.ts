import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { runInPage } from '../support/device-page';

// Every demo in every rig, and glass of four roughnesses, to be looked at: would one hang these pictures on a wall?
for (const [script, file] of [
  ['draw-sheet', 'demos'],
  ['draw-glass', 'rough-glass'],
]) {
  const { png } = await runInPage<{ png: string }>(fileURLToPath(new URL(`./${script}.ts`, import.meta.url)));
  writeFileSync(fileURLToPath(new URL(`../../docs/${file}.png`, import.meta.url)), Buffer.from(png, 'base64'));
  console.log(`docs/${file}.png is kept.`);
}

/** Puts the shader library's texts into a module, so that every build and test tool can load them. */
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join, relative, sep } from 'node:path';
import { fileURLToPath } from 'node:url';

const core = fileURLToPath(new URL('../packages/core/', import.meta.url));
const shaders = join(core, 'shaders');
const target = join(core, 'src', 'catalogue', 'shader-sources.generated.ts');

const paths = readdirSync(shaders, { recursive: true, withFileTypes: true })
  .filter((entry) => entry.isFile() && entry.name.endsWith('.glsl'))
  .map((entry) => relative(shaders, join(entry.parentPath, entry.name)).split(sep).join('/'))
  .sort();
const entries = paths.map((path) => `  [${JSON.stringify(path)}, ${JSON.stringify(readFileSync(join(shaders, path), 'utf8'))}],`);
const text = `// Made by scripts/embed-shaders.ts from packages/core/shaders.
export const SHADER_SOURCES: readonly (readonly [path: string, text: string])[] = [
${entries.join('\n')}
];
`;
mkdirSync(join(core, 'src', 'catalogue'), { recursive: true });
writeFileSync(target, text);

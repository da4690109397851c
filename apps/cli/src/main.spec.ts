import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { DEMO_DOCUMENTS, library, newSet, writeBrelvinFile } from '@brelvin/core';
import { main } from './main';

const folder = mkdtempSync(join(tmpdir(), 'brelvin-cli-'));
const BIN = fileURLToPath(new URL('../bin/brelvin.mjs', import.meta.url));

function file(name: string, content: unknown): string {
  const path = join(folder, name);
  writeFileSync(path, typeof content === 'string' ? content : JSON.stringify(content));
  return path;
}

async function run(...args: string[]): Promise<{ code: number; out: string; err: string }> {
  const out: string[] = [];
  const err: string[] = [];
  const code = await main(args, { out: (line) => void out.push(line), err: (line) => void err.push(line) });
  return { code, out: out.join('\n'), err: err.join('\n') };
}

const demos = DEMO_DOCUMENTS.filter((each) => each.document.format === 'brelvin-material');
const [good] = demos.map((each) => file(`${each.id}.brelvin`, each.document));

describe('brelvin nodes', () => {
  it('makes the page of all kinds, which docs/nodes.md is', async () => {
    const { code, out } = await run('nodes', '--markdown');
    expect(code).toBe(0);
    const kept = readFileSync(new URL('../../../docs/nodes.md', import.meta.url), 'utf8');
    expect(kept.trim()).withContext('make docs/nodes.md anew: npx brelvin nodes --markdown > docs/nodes.md').toBe(out.trim());
  });

  it('has at least 120 kinds, each with help, a source and labels', async () => {
    interface Listed {
      readonly id: string;
      readonly help: string;
      readonly source: string;
      readonly inlets: readonly { readonly label: string }[];
      readonly outlets: readonly { readonly label: string }[];
    }
    const kinds = JSON.parse((await run('nodes', '--json')).out) as Listed[];
    expect(kinds.length).toBeGreaterThanOrEqual(120);
    for (const { id, help, source, inlets, outlets } of kinds)
      expect([help, source, ...[...inlets, ...outlets].map(({ label }) => label)].every((each) => each.length > 0))
        .withContext(id)
        .toBeTrue();
  });

  it('lists every kind, for people and for programs', async () => {
    const { code, out } = await run('nodes');
    expect(code).toBe(0);
    expect(out.split('\n').length).toBe(library().kinds.size);
    expect(out).toMatch(/^bands\s+Light\s+Bands: Light in flat steps/m);
    const kinds = JSON.parse((await run('nodes', '--json')).out) as { id: string; signatures: string[]; source: string }[];
    expect(kinds.find((kind) => kind.id === 'add')?.signatures).toContain('addValues(Lit,Lit)');
    expect(kinds.every((kind) => kind.source.length > 0)).toBeTrue();
  });
});

describe('brelvin check', () => {
  it('finds nothing wrong with the demos', async () => {
    const { code, err } = await run('check', ...demos.map((each) => join(folder, `${each.id}.brelvin`)), file('set.brelvin', newSet('s')));
    expect([code, err]).toEqual([0, '']);
  });

  const document = demos[0]!.document as { surface: { nodes: object; ribbons: object } };
  const cases: readonly (readonly [string, unknown, RegExp])[] = [
    [
      'an unknown kind',
      { ...document, surface: { ...document.surface, nodes: { a: { kind: 'bandz', rev: 1, x: 0, y: 0, values: {} } }, ribbons: {} } },
      /a: There is no kind of node called "bandz". The nearest is "bands"/,
    ],
    ['a newer version', { ...document, version: 7 }, /version 7/],
    ['a file that was cut off', JSON.stringify(document).slice(0, 100), /cut off/],
    ['something else', 'GIF89a', /not JSON/],
  ];
  for (const [what, content, words] of cases) {
    it(`says what is wrong with ${what}`, async () => {
      const path = file('bad.brelvin', content);
      const { code, err } = await run('check', path);
      expect(code).toBe(1);
      expect(err).toMatch(words);
      expect(err).toContain(path);
      const [report] = JSON.parse((await run('check', path, '--json')).out) as { problems: { message: string }[] }[];
      expect(report?.problems.length).toBeGreaterThan(0);
    });
  }

  it('checks shading code, with line and column and the nearest right name', async () => {
    const broken = file('glow.glsl', 'vec3 glow(float amount) {\n  return vec3(amount) * smoothstp(0.0, 1.0, amount);\n}\n');
    const { code, err } = await run('check', broken);
    expect(code).toBe(1);
    expect(err).toBe(`${broken}:2:25: error: There is no function "smoothstp". Did you mean "smoothstep"?`);
    const fine = file('fine.glsl', 'Lit glow(vec3 colour) { return emitted(colour); }');
    expect((await run('check', fine)).out).toBe(`${fine}: fine`);
  });

  it('reads what the Bench sends out with its images, and nothing that is too large', async () => {
    const packed = join(folder, 'packed.brelvin');
    writeFileSync(packed, writeBrelvinFile(demos[0]!.document, new Map()));
    const endless = join(folder, 'endless.brelvin');
    writeFileSync(endless, '');
    truncateSync(endless, 2 * 1024 ** 3);
    const { code, out, err } = await run('check', packed, endless);
    expect(code).toBe(1);
    expect(out).toBe(`${packed}: fine`);
    expect(err).toBe(`${endless}: has 2147483648 bytes; at most ${256 * 1024 * 1024} are read.`);
  });

  it('goes on to the next file, and names one that is not there', async () => {
    const { code, out, err } = await run('check', join(folder, 'none.brelvin'), good!);
    expect(code).toBe(1);
    expect(err).toContain('can not be read (ENOENT)');
    expect(out).toContain(': fine');
  });
});

describe('brelvin emit', () => {
  for (const { id } of demos) {
    it(`writes ${id} as GLSL that the reference compiler takes, stages linked`, async () => {
      const { code, out } = await run('emit', join(folder, `${id}.brelvin`), '--target', 'glsl', '--out', join(folder, 'out'));
      expect(code).toBe(0);
      const files = out.split('\n');
      expect(files.map((path) => path.split('.').pop())).toEqual(['vert', 'frag']);
      const checked = spawnSync('glslangValidator', ['-l', ...files], { encoding: 'utf8' });
      expect(checked.status)
        .withContext(checked.stdout + checked.stderr)
        .toBe(0);
    });
  }

  it('refuses what is not a material', async () => {
    const { code, err } = await run('emit', file('s.brelvin', newSet('s')), '--target', 'glsl', '--out', folder);
    expect([code, /is a set, not a material/.test(err)]).toEqual([1, true]);
  });
});

describe('brelvin', () => {
  it('says how it is used, and exits with 2 when used wrongly', async () => {
    expect((await run('--help')).code).toBe(0);
    for (const args of [['dance'], ['emit', good!], ['emit', good!, '--target', 'french', '--out', folder], ['check']])
      expect((await run(...args)).code).toBe(2);
  });

  it('runs as a program', () => {
    const result = spawnSync(process.execPath, [BIN, 'check', good!], { encoding: 'utf8' });
    expect([result.status, result.stdout.includes('fine')]).toEqual([0, true]);
    expect(readFileSync(good!, 'utf8')).toContain('brelvin-material');
  });
});

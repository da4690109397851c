import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { DEMO_DOCUMENTS, demoFunctions, functionsNeededBy, library, newSet, writeBrelvinFile } from '@brelvin/core';
import { originalPositionFor, TraceMap } from '@jridgewell/trace-mapping';
import { nodeGpu } from '@brelvin/devices/node';
import { main } from './main';
import type { ProgramInputs } from './program-inputs';

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
const texts = new Map([...demoFunctions()].map(([name, { text }]) => [name, text]));
const [good] = demos.map(({ id, document }) => {
  const needed = new Map([...functionsNeededBy(document, demoFunctions())].map((name) => [name, texts.get(name) ?? '']));
  if (needed.size === 0) return file(`${id}.brelvin`, document);
  const path = join(folder, `${id}.brelvin`);
  writeFileSync(path, writeBrelvinFile({ document, functions: needed }));
  return path;
});

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

  it('holds what materials cost against a budget', async () => {
    const brass = join(folder, 'material-burner-brass.brelvin');
    expect((await run('check', brass, '--budget', 'reads=1000,instructions=100000')).code).toBe(0);
    const { code, err } = await run('check', brass, '--budget', 'reads=1,instructions=100');
    expect(code).toBe(1);
    expect(err).toMatch(/\d+ instructions where 100 are allowed\.\n.*\d+ reads of images where 1 are allowed\./);
    const spent = async (lights: string): Promise<number> =>
      Number(
        /: ([\d,]+) instructions/.exec((await run('check', brass, '--budget', `instructions=1,${lights}`)).err)?.[1]?.replace(',', ''),
      );
    expect(await spent('lights=4')).toBeGreaterThan(await spent('lights=1'));
    for (const wrong of ['reads', 'triangles=3', 'reads=few', 'reads=-1', 'lights=9'])
      expect((await run('check', brass, '--budget', wrong)).code)
        .withContext(wrong)
        .toBe(2);
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
    expect(err).toBe(`${broken}:2:25: error: There is no function "smoothstp". To mend: Write “smoothstep”.`);
    const fine = file('fine.glsl', 'Lit glow(vec3 colour) { return emitted(colour); }');
    expect((await run('check', fine)).out).toBe(`${fine}: fine`);
  });

  it('checks WGSL, with the nearest right name', async () => {
    const broken = file('ember.wgsl', 'fn ember(amount: f32) -> vec3f {\n  return vec3f(amount) * smoothstp(0.0, 1.0, amount);\n}\n');
    const { code, err } = await run('check', broken);
    expect(code).toBe(1);
    expect(err).toBe(`${broken}:2:26: error: There is no function "smoothstp". To mend: Write “smoothstep”.`);
    const whole = file('whole.wgsl', '@fragment fn pixels(@location(0) at: vec3f) -> @location(0) vec4f { return vec4f(at, 1.0); }');
    expect((await run('check', whole)).out).toBe(`${whole}: fine`);
  });

  it('ends with 1 on warnings, and with 0 where they are fine', async () => {
    const warned = file('warned.glsl', 'float half_(float a) {\n  float unused = 1.0;\n  return a * 0.5;\n}\n');
    expect((await run('check', warned)).code).toBe(1);
    const { code, err } = await run('check', warned, '--warnings-fine');
    expect(code).toBe(0);
    expect(err).toContain(`${warned}:2:9: warning: Nothing uses "unused".`);
    const broken = file('both.glsl', 'float f(float a) { float unused = 1.0; return 1; }');
    expect((await run('check', broken, '--warnings-fine')).code).toBe(1);
  });

  it('says where a loop is broken off whose length is not plain, which is no mistake', async () => {
    const while_ = '  float t = 0.0;\n  while (t < s.uv.x) { t += 0.001; }\n';
    const plain = '  for (int i = 0; i < 64; i++) { t += 0.1; }\n  while (true) { t += 0.1; }\n';
    const loops = file('loops.glsl', `vec4 paint(Surface s) {\n${while_}${plain}  return vec4(t);\n}\n`);
    const { code, err } = await run('check', loops, '--warnings-fine');
    expect(code).toBe(0);
    expect(err.split('\n').map((line) => line.slice(loops.length + 1))).toEqual([
      '5:3: warning: Nothing in this loop brings it to an end. It is broken off after 4,096 steps.',
      '3:3: note: Nothing in the text says how often this loop goes round. All such loops of one pixel have 4,096 steps; where they run out, the picture shows stripes.',
    ]);
    const open = file(
      'open.wgsl',
      'fn paint(s: Surface) -> vec4f {\n  var t = 0.0;\n  while t < s.uv.x { t += 0.001; }\n  return vec4f(t);\n}\n',
    );
    const one = await run('check', open);
    expect(one.code).toBe(0);
    expect(one.out).toBe(`${open}: fine`);
    expect(one.err).toContain(`${open}:3:3: note: Nothing in the text says`);
  });

  it('reads what the Bench sends out with its images, and nothing that is too large', async () => {
    const packed = join(folder, 'packed.brelvin');
    writeFileSync(packed, writeBrelvinFile({ document: demos[0]!.document }));
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
    expect(err).toContain('cannot be read (ENOENT)');
    expect(out).toContain(': fine');
  });
});

describe('brelvin check, of code', () => {
  it('gives machines the place of each finding, and what mends it', async () => {
    const path = file('glint.glsl', 'vec4 paint(Surface s) {\n  return vec4(normalise(s.normal), 1.0);\n}\n');
    const { code, out } = await run('check', path, '--json');
    expect(code).toBe(1);
    const [report] = JSON.parse(out) as {
      problems: { line: number; column: number; range: object; severity: string; mends: { edits: object[] }[] }[];
    }[];
    const [found] = report!.problems;
    expect([found?.line, found?.column, found?.severity]).toEqual([2, 15, 'error']);
    expect(found?.range).toEqual({ from: 38, to: 47 });
    expect(found?.mends[0]?.edits).toEqual([{ from: 38, to: 47, text: 'normalize' }]);
  });

  it('finds functions in files beside it, and vertices beside pixels', async () => {
    file('soften.glsl', 'float soften(float x) { return x * 0.5; }');
    const user = file('user.glsl', 'import soften;\nvec4 paint(Surface s) { return vec4(soften(s.uv.x)); }');
    expect((await run('check', user)).out).toBe(`${user}: fine`);
    const pixels = file('two.frag', 'in vec2 v;\nout vec4 pixel;\nvoid main() { pixel = vec4(v, 0.0, 1.0); }');
    const vertices = file('two.vert', 'in vec3 position;\nout vec3 v;\nvoid main() { v = position; gl_Position = vec4(position, 1.0); }');
    expect((await run('check', pixels, vertices)).err).toBe(
      `${pixels}:1:9: error: “v” is vec2 here, but the vertex stage hands on a vec3.`,
    );
  });

  it('tells of a circle of imports', async () => {
    const one = file('ringOne.glsl', 'import ringTwo;\nfloat ringOne(float x) { return ringTwo(x); }');
    file('ringTwo.glsl', 'import ringOne;\nfloat ringTwo(float x) { return ringOne(x); }');
    expect((await run('check', one)).err).toContain('ringOne → ringTwo → ringOne');
  });
});

describe('brelvin watch', () => {
  it('checks what is saved, says so when no server answers, and ends when asked', async () => {
    const watched = mkdtempSync(join(tmpdir(), 'brelvin-watch-'));
    const lines: string[] = [];
    const ended = new AbortController();
    const said = async (words: string): Promise<void> => {
      for (let left = 200; left > 0 && !lines.some((line) => line.includes(words)); left--)
        await new Promise((resolve) => setTimeout(resolve, 50));
      expect(lines.join('\n')).toContain(words);
    };
    const output = { out: (line: string) => void lines.push(line), err: (line: string) => void lines.push(line) };
    const running = main(['watch', watched, '--server', 'http://127.0.0.1:9'], output, ended.signal);
    await said('watching');
    writeFileSync(join(watched, 'mine.glsl'), '// @material m1\nvec4 paint(Surface s) { return vec4(1); }');
    await said('mine.glsl: fine');
    await said('No server answers at http://127.0.0.1:9');
    writeFileSync(join(watched, 'mine.glsl'), 'vec4 paint(Surface s) { return vec4(x); }');
    await said('mine.glsl:1:37: error: Nothing here is called "x".');
    ended.abort();
    expect(await running).toBe(0);
  }, 30_000);
});

describe('brelvin fuzz', () => {
  it('reads random programs and says how many', async () => {
    const { code, out } = await run('fuzz', '--seed', '7', '--count', '128');
    expect(code).toBe(0);
    expect(out).toMatch(/^128 right and 128 broken programs from seed 7 on \(128 of them by glslangValidator too\): 0 found\.$/);
    expect((await run('fuzz', '--count', 'many')).code).toBe(2);
    expect((await run('fuzz', '--targets', 'cpu')).code).toBe(2);
    expect((await run('fuzz', '--targets', 'hlsl')).err).toContain('There is no target “hlsl”. There is glsl, wgsl, cpu.');
  }, 60_000);

  it('computes random functions as WGSL on a device and on the CPU', async () => {
    const { code, out } = await run('fuzz', '--seed', '5000', '--count', '40', '--targets', 'wgsl,cpu');
    expect([code, out]).toEqual([
      0,
      jasmine.stringMatching(/^40 functions from seed 5000 on, computed as WGSL by .+ and on the CPU: 0 found\.$/),
    ]);
  }, 60_000);
});

describe('brelvin emit', () => {
  it('writes source maps that lead back to the code, the library, and nodes', async () => {
    const path = file('mapped.glsl', 'uniform float gain;\nvec4 paint(Surface s) {\n  return vec4(s.normal * gain, 1.0);\n}\n');
    const out = join(folder, 'maps');
    expect((await run('emit', path, '--target', 'glsl', '--out', out)).code).toBe(0);
    const emitted = readFileSync(join(out, 'mapped.frag'), 'utf8').split('\n');
    const map = new TraceMap(readFileSync(join(out, 'mapped.frag.map'), 'utf8'));
    const line = emitted.findIndex((each) => each.includes('s.normal *'));
    expect(originalPositionFor(map, { line: line + 1, column: 0 })).toEqual(
      jasmine.objectContaining({ source: 'mapped.glsl', line: 3, column: 2 }),
    );
    expect(map.sources.some((each) => each?.startsWith('library/'))).toBeTrue();
  });

  for (const { id } of demos) {
    it(`writes ${id} as GLSL that the reference compiler takes, stages linked`, async () => {
      const { code, out } = await run('emit', join(folder, `${id}.brelvin`), '--target', 'glsl', '--out', join(folder, 'out'));
      expect(code).toBe(0);
      const files = out.split('\n');
      expect(files.map((path) => path.split('.').pop())).toEqual(['vert', 'frag', 'json']);
      const checked = spawnSync('glslangValidator', ['-l', ...files.slice(0, 2)], { encoding: 'utf8' });
      expect(checked.status)
        .withContext(checked.stdout + checked.stderr)
        .toBe(0);
    });
  }

  it('writes all of them as WGSL that WebGPU takes', async () => {
    const adapter = await (await nodeGpu()).requestAdapter();
    const device = await adapter!.requestDevice();
    let taken = 0;
    for (const { id } of demos) {
      const { code, out } = await run('emit', join(folder, `${id}.brelvin`), '--target', 'wgsl', '--out', join(folder, 'wgsl'));
      expect(code).toBe(0);
      const files = out.split('\n').filter((path) => path.endsWith('.wgsl'));
      for (const path of files) {
        device.pushErrorScope('validation');
        const module = device.createShaderModule({ code: readFileSync(path, 'utf8') });
        const { messages } = await module.getCompilationInfo();
        await device.popErrorScope();
        expect(messages.filter(({ type }) => type === 'error').map(({ message }) => message))
          .withContext(path)
          .toEqual([]);
        taken++;
      }
    }
    expect(taken).toBe(demos.length * 2);
    device.destroy();
  });

  it('lists what programs read: blocks with their members, images, and where parameters stand', async () => {
    const path = file(
      'read.glsl',
      'uniform float gain;\nuniform sampler2D bark;\nvec4 paint(Surface s) { return texture(bark, s.uv) * gain; }\n',
    );
    await run('emit', path, '--target', 'wgsl', '--out', join(folder, 'read'));
    const inputs = JSON.parse(readFileSync(join(folder, 'read', 'read.inputs.json'), 'utf8')) as ProgramInputs;
    const text = readFileSync(join(folder, 'read', 'read.frag.wgsl'), 'utf8');
    expect(inputs.parameters).toEqual([{ name: 'Gain', type: 'float', word: 0 }]);
    expect(inputs.blocks.find(({ name }) => name === 'Material')).toEqual(
      jasmine.objectContaining({ group: 1, binding: 0, changes: 'own' }),
    );
    const [image] = inputs.images;
    expect(text).toContain(`@group(${image?.group}) @binding(${image?.binding}) var ${image?.name}: texture_2d<f32>;`);
    expect(text).toContain(`@binding(${image?.sampler}) var ${image?.name}Sampler: sampler;`);
    expect(inputs.attributes).toContain('meshUv0');
  });

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

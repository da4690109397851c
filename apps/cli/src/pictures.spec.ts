import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import {
  exrHead,
  newCodeMaterial,
  newDistanceField,
  newFunction,
  newMaterial,
  newMesh,
  newRig,
  newSet,
  readBrelvinFile,
  writeBrelvinFile,
  type BrelvinFile,
} from '@brelvin/core';
import { ExrReader } from '@brelvin/io';
import { nodeBinaries, pngFile } from '@brelvin/io/node';
import { readExr } from 'exrs/node_modules/exrs-raw-wasm-bindgen/exrs_raw_wasm_bindgen.js';
import { PNG } from 'pngjs';
import { main } from './main';

const folder = mkdtempSync(join(tmpdir(), 'brelvin-pictures-'));
const BIN = fileURLToPath(new URL('../bin/brelvin.mjs', import.meta.url));
const SMALL = ['--size', '48x32'];

const place = (name: string): string => join(folder, name);

function file(name: string, content: string | Uint8Array): string {
  writeFileSync(place(name), content);
  return place(name);
}

async function run(...args: string[]): Promise<{ code: number; out: string; err: string }> {
  const [out, err]: [string[], string[]] = [[], []];
  const code = await main(args, { out: (line) => void out.push(line), err: (line) => void err.push(line) });
  return { code, out: out.join('\n'), err: err.join('\n') };
}

/** Channels of a file, pixel by pixel; the library was started when it was written. */
async function layersOf(bytes: Uint8Array, pixels: number, channels: string[]): Promise<number[][]> {
  const decoder = readExr(bytes);
  const all = decoder.getLayerPixels(0, channels) ?? new Float32Array();
  decoder.free();
  return Array.from({ length: pixels }, (_, pixel) => [...all.subarray(pixel * channels.length, (pixel + 1) * channels.length)]);
}

const PAINT = `/** Tint: the colour of it. @value 0.8, 0.1, 0.1 */
uniform vec3 tint;
/** Glow: how bright it is. @value 1.0 */
uniform float glow;
vec4 paint(Surface s) { return vec4(tint * glow, 1.0); }
`;

const painted = file('painted.glsl', PAINT);

function pixel(picture: string, x: number, y: number): number[] {
  const { width, data } = PNG.sync.read(readFileSync(picture));
  return [...data.subarray((y * width + x) * 4, (y * width + x) * 4 + 4)];
}

describe('brelvin check --budget', () => {
  it('measures a picture where milliseconds are bounded, and says by how much it is beyond', async () => {
    const { code, err } = await run('check', painted, '--budget', 'ms=0.01');
    expect(code).toBe(1);
    expect(err).toMatch(/painted\.glsl: [\d,.]+ milliseconds where 0\.010 are allowed\./);
  });
});

describe('brelvin render', () => {
  it('draws a material’s code on a sphere, with parameters as they are set', async () => {
    const plain = place('plain.png');
    const { code, out, err } = await run('render', painted, '--out', plain, ...SMALL);
    expect([code, out, err]).toEqual([0, plain, '']);
    const { width, height } = PNG.sync.read(readFileSync(plain));
    expect([width, height]).toEqual([48, 32]);
    const [red = 0, green = 0, blue = 0] = pixel(plain, 24, 16);
    expect(red).toBeGreaterThan(150);
    expect(Math.max(green, blue)).toBeLessThan(120);
    const other = place('other.png');
    await run('render', painted, '--out', other, ...SMALL, '--parameter', 'Tint=#0000ff', '--parameter', 'Glow=0.5');
    const [r = 0, g = 0, b = 0] = pixel(other, 24, 16);
    expect(b).toBeGreaterThan(100);
    expect(Math.max(r, g)).toBeLessThan(60);
  });

  it('writes scene-linear OpenEXR, beyond white, with a layer for each term that adds up to the whole', async () => {
    const bright = file('bright.glsl', PAINT.replace('vec4(tint * glow, 1.0)', 'vec4(tint * glow * (0.2 + s.normal.y), 1.0)'));
    const rig = file('dark.brelvin', JSON.stringify({ ...newRig('dark'), background: [0, 0, 0], backgroundTop: [0, 0, 0] }));
    const out = place('bright.exr');
    const seen = await run('render', bright, '--out', out, ...SMALL, '--rig', rig, '--parameter', 'Glow=8', '--passes', 'terms');
    expect([seen.code, seen.err]).toEqual([0, '']);
    const bytes = readFileSync(out);
    const { channels } = exrHead(bytes);
    for (const channel of ['R', 'A', 'diffuse.R', 'emission.B']) expect(channels).toContain(channel);
    const { picture } = await new ExrReader(nodeBinaries).read(bytes);
    expect(Math.max(...picture.data)).toBeGreaterThan(2);
    const layers = await layersOf(bytes, 48 * 32, [
      'R',
      ...['ambient', 'diffuse', 'specular', 'reflection', 'transmission', 'emission'].map((each) => `${each}.R`),
    ]);
    const worst = layers.map(([whole = 0, ...terms]) => Math.abs(whole - terms.reduce((sum, each) => sum + each, 0)));
    // Half floats of the device, added up.
    expect(Math.max(...worst)).toBeLessThan(0.02);
  });

  it('records what is seen at each pixel: where it faces, how far it is, and which part it is', async () => {
    const camera = { target: [0, 0, 0] as [number, number, number], distance: 5, azimuth: 0, elevation: 0, fieldOfView: 0.6 };
    const views = { v: { name: 'ahead', order: 0, camera } };
    const set = file('ball.brelvin', JSON.stringify({ ...newSet('ball'), floor: { ...newSet('ball').floor, shown: false }, views }));
    const out = place('seen.exr');
    const seen = await run('render', painted, '--out', out, ...SMALL, '--set', set, '--view', 'ahead', '--passes', 'normal,depth,part');
    expect([seen.code, seen.err, seen.out]).toEqual([0, '', `${out}\n${place('seen.parts.json')}`]);
    const names = ['normal.X', 'normal.Y', 'normal.Z', 'depth.Z', 'part.id'];
    const pixels = await layersOf(readFileSync(out), 48 * 32, names);
    const at = (x: number, y: number): readonly number[] => pixels[y * 48 + x] ?? [];
    const [nx = 0, ny = 0, nz = 0, depth = 0, part] = at(24, 16);
    expect(nz).toBeGreaterThan(0.99);
    expect(Math.hypot(nx, ny, nz)).toBeCloseTo(1, 3);
    expect(depth).toBeCloseTo(4, 1);
    expect(part).toBe(1);
    // Above the middle it faces upwards, to the right of it to the right.
    expect(at(24, 9)[1]).toBeGreaterThan(0.3);
    expect(at(32, 16)[0]).toBeGreaterThan(0.3);
    expect(at(0, 0)).toEqual([0, 0, 0, Infinity, 0]);
    expect(JSON.parse(readFileSync(place('seen.parts.json'), 'utf8'))).toEqual({ 1: 'Sphere / sphere' });
  });

  it('draws a field, alone or in a set that brings it along', async () => {
    const field = newDistanceField('Float');
    const out = place('field.exr');
    const parts = (): unknown => JSON.parse(readFileSync(place('field.parts.json'), 'utf8'));
    const seen = await run('render', file('float.brelvin', JSON.stringify(field)), '--out', out, ...SMALL, '--passes', 'part');
    expect([seen.code, seen.err]).toEqual([0, '']);
    expect(parts()).toEqual({ 1: 'Field / Float', 2: 'Field / Collar' });
    const numbers = await layersOf(readFileSync(out), 48 * 32, ['part.id']);
    for (const part of [0, 1, 2])
      expect(numbers.filter(([each]) => each === part).length)
        .withContext(`part ${part}`)
        .toBeGreaterThan(8);
    const set = { ...newSet('Hall'), meshes: { hall: newMesh('field', {}, { name: 'Hall', field: 'f' }) } };
    const content = { document: set, beside: new Map([['f', field]]), assets: new Map(), functions: new Map() };
    const whole = await run('render', file('hall.brelvin', writeBrelvinFile(content)), '--out', out, ...SMALL, '--passes', 'part');
    expect([whole.code, whole.err]).toEqual([0, '']);
    expect(parts()).toEqual({ 1: 'Hall / Float', 2: 'Hall / Collar' });
    // Without its field nothing stands there, and that is said.
    const alone = await run('render', file('alone.brelvin', JSON.stringify(set)), '--out', out, ...SMALL);
    expect(alone.code).not.toBe(0);
    expect(alone.err + alone.out).toContain('The field that it shows is not here');
  });

  it('writes OpenEXR that is wider than what is drawn at once', async () => {
    const out = place('wide.exr');
    const seen = await run('render', painted, '--out', out, '--size', '2400x24', '--passes', 'part');
    expect([seen.code, seen.err]).toEqual([0, '']);
    const pixels = await layersOf(readFileSync(out), 2400 * 24, ['B', 'part.id']);
    const row = pixels.slice(12 * 2400, 13 * 2400);
    const seenAt = row.flatMap(([, part], x) => (part === 1 ? [x] : []));
    // The ball is in the middle, and of one piece.
    expect(Math.abs((seenAt[0]! + seenAt.at(-1)!) / 2 - 1200)).toBeLessThan(3);
    expect(seenAt.at(-1)! - seenAt[0]! + 1).toBe(seenAt.length);
  });

  it('says what an OpenEXR file cannot be, and which passes there are', async () => {
    expect((await run('render', painted, '--out', place('x.png'), '--passes', 'terms')).err).toContain('only OpenEXR files have layers');
    const large = await run('render', painted, '--out', place('x.exr'), '--size', '8192x8192', '--passes', 'normal,depth');
    expect([large.code, large.err]).toEqual([1, jasmine.stringContaining('would hold 2.0 times the numbers')]);
    expect((await run('render', painted, '--out', place('x.exr'), '--size', '9000x16')).err).toContain('at most 8192 pixels a side');
    const wrong = await run('render', painted, '--out', place('x.exr'), '--passes', 'shine');
    expect([wrong.code, wrong.err]).toEqual([2, jasmine.stringContaining('There is no pass “shine”. There is ambient, diffuse')]);
  });

  it('says how far it is, where that is wished for', async () => {
    const { out } = await run('render', painted, '--out', place('frame.png'), ...SMALL, '--frames', '2', '--progress');
    expect(out.split('\n').filter((line) => line.startsWith('progress'))).toEqual([
      'progress 0.000',
      'progress 0.500',
      'progress 0.500',
      'progress 1.000',
    ]);
  });

  it('stands it in a set, under a light rig, in a saved view', async () => {
    const camera = { target: [0, 0, 0] as [number, number, number], distance: 400, azimuth: 0, elevation: 0, fieldOfView: 0.5 };
    const set = file('far.brelvin', JSON.stringify({ ...newSet('far'), views: { v: { name: 'from afar', order: 0, camera } } }));
    const rig = file('green.brelvin', JSON.stringify({ ...newRig('green'), background: [0, 1, 0], backgroundTop: [0, 1, 0] }));
    const out = place('afar.png');
    const seen = await run('render', painted, '--out', out, ...SMALL, '--set', set, '--rig', rig, '--view', 'from afar');
    expect([seen.code, seen.err]).toEqual([0, '']);
    const [red = 0, green = 0] = pixel(out, 4, 4);
    expect(green).toBeGreaterThan(red + 50);
    const other = place('camera.png');
    const same = await run('render', painted, '--out', other, ...SMALL, '--set', set, '--rig', rig, '--camera', JSON.stringify(camera));
    expect([same.code, readFileSync(other)]).toEqual([0, readFileSync(out)]);
    for (const [text, words] of [
      ['near', /must be JSON/],
      [JSON.stringify({ ...camera, distance: 'far' }), /distance/],
    ] as const) {
      const refused = await run('render', painted, '--out', other, '--camera', text);
      expect([refused.code, refused.err]).toEqual([2, jasmine.stringMatching(words)]);
    }
    const wrong = await run('render', painted, '--out', out, '--set', set, '--view', 'near');
    expect([wrong.code, wrong.err]).toEqual([1, 'painted.glsl: the set has no view “near”. There is “from afar”.']);
    expect((await run('render', painted, '--out', out, '--set', rig)).err).toBe(`${rig}: is no set.`);
  });

  it('draws a sequence, in which what moves has moved', async () => {
    const moving = file('moving.glsl', 'vec4 paint(Surface s) { return vec4(vec3(fract(stageTime())), 1.0); }\n');
    const { code, out } = await run('render', moving, '--out', place('seq.png'), ...SMALL, '--frames', '3', '--fps', '4');
    expect(code).toBe(0);
    expect(out.split('\n')).toEqual(['seq.0001.png', 'seq.0002.png', 'seq.0003.png'].map(place));
    const brightness = [1, 2, 3].map((number) => pixel(place(`seq.000${number}.png`), 24, 16)[0] ?? 0);
    expect(brightness).toEqual([...brightness].sort((a, b) => a - b));
    expect(new Set(brightness).size).toBe(3);
  });

  it('says what a picture lacks, and draws it all the same', async () => {
    const image = {
      name: 'bark.png',
      asset: 'ab'.repeat(32),
      width: 4,
      height: 4,
      role: 'colour',
      wrapX: 'repeat',
      wrapY: 'repeat',
      filter: 'smooth',
      uvSet: 0,
    } as const;
    const made = newCodeMaterial('bare', {}, { text: 'uniform sampler2D bark;\nvec4 paint(Surface s) { return texture(bark, s.uv); }\n' });
    const [id = ''] = Object.keys(made.parameters);
    const material = {
      ...made,
      images: { bark: image },
      parameters: { ...made.parameters, [id]: { ...made.parameters[id]!, image: 'bark' } },
    };
    const { code, err } = await run('render', file('bare.brelvin', JSON.stringify(material)), '--out', place('bare.png'), ...SMALL);
    expect(code).toBe(1);
    expect(err).toBe('bare.brelvin: image “bark.png”: It cannot be had: a grey check stands in its place.');
    expect(existsSync(place('bare.png'))).toBeTrue();
  });

  const bad: readonly (readonly [string, readonly string[], RegExp, number])[] = [
    ['another ending', ['--out', 'x.jpg'], /end the name in \.png or \.exr/, 1],
    ['a size that is none', ['--out', 'x.png', '--size', '10'], /width x height/, 2],
    ['more pixels than there may be', ['--out', 'x.png', '--size', '16384x16384'], /at most 8192 pixels a side/, 2],
    ['a sequence of nothing', ['--out', 'x.png', '--frames', '0'], /whole number from 1/, 2],
    ['no pictures in a second', ['--out', 'x.png', '--frames', '2', '--fps', '0'], /whole number from 1/, 2],
    ['an unknown parameter', ['--out', 'x.png', '--parameter', 'tone=1'], /no parameter “tone”. There is “Tint”, “Glow”\./, 1],
    ['two numbers for one', ['--out', 'x.png', '--parameter', 'Glow=1,2'], /one number is wanted/, 1],
    ['a folder that is not there', ['--out', '/nowhere/x.png'], /cannot be written \(ENOENT\)/, 1],
  ];
  for (const [what, options, words, code] of bad) {
    it(`refuses ${what}`, async () => {
      const found = await run('render', painted, ...SMALL, ...options);
      expect(found.err).toMatch(words);
      expect(found.code).toBe(code);
    });
  }

  it('refuses a function, and takes those that came with a set’s file', async () => {
    const toon = file('f.brelvin', JSON.stringify(newFunction('soft', 'float soft(float x) { return x * 0.5; }')));
    expect((await run('render', toon, '--out', place('f.png'))).err).toBe(
      `${toon}: is a function; draw a material that uses it, or a set or light rig.`,
    );
    const worn = newCodeMaterial('worn', {}, { text: 'import soft;\nvec4 paint(Surface s) { return vec4(0.0, soft(2.0), 0.0, 1.0); }\n' });
    const set = { ...newSet('dressed'), partRules: { r: { pattern: '*', order: 0, material: 'w', values: {} } } };
    const functions = new Map([['soft', 'float soft(float x) { return x * 0.5; }']]);
    const dressed = file('dressed.brelvin', writeBrelvinFile({ document: set, beside: new Map([['w', worn]]), functions }));
    const drawn = await run('render', painted, '--out', place('worn.png'), ...SMALL, '--set', dressed);
    expect([drawn.code, drawn.err]).toEqual([0, '']);
    const [red = 0, green = 0] = pixel(place('worn.png'), 24, 16);
    expect(green).toBeGreaterThan(red + 100);
  });

  it('says what is wrong with a material that does not compile', async () => {
    const { code, err } = await run('render', file('broken.glsl', 'vec4 paint(Surface s) { return vec4(x); }'), '--out', place('b.png'));
    expect(code).toBe(1);
    expect(err).toMatch(/broken\.glsl: material “broken\.glsl”: .*"x"/);
    expect(err).toContain('there is no picture');
  });

  it('says in a sentence what to install where nothing can draw', () => {
    const env = { ...process.env, VK_DRIVER_FILES: '/nowhere', VK_ICD_FILENAMES: '/nowhere' };
    const { status, stderr } = spawnSync('node', [BIN, 'render', painted, '--out', place('never.png')], { env, encoding: 'utf8' });
    expect(status).toBe(1);
    expect(stderr).toContain('There is no graphics adapter on this machine. Install a Vulkan driver');
    expect(stderr.trim().split('\n').at(-1)).toMatch(/software driver will do\.$/);
  });
});

describe('brelvin compare', () => {
  const even = (value: number, size = 4): Uint8Array => new Uint8Array(size * size * 4).fill(value);
  const [dark, light, large] = [
    file('dark.png', pngFile({ width: 4, height: 4 }, even(100))),
    file('light.png', pngFile({ width: 4, height: 4 }, even(110))),
    file('large.png', pngFile({ width: 5, height: 5 }, even(100, 5))),
  ];

  it('says by how much two pictures differ, and ends with 1 where that is too much', async () => {
    expect((await run('compare', dark, dark)).code).toBe(0);
    const { code, out } = await run('compare', dark, light);
    expect([code, out]).toEqual([1, 'mean 10.000, largest 10 of 255; 100.00 % of the pixels differ by more than rounding']);
    expect((await run('compare', dark, light, '--most', '10')).code).toBe(0);
    expect(JSON.parse((await run('compare', dark, light, '--json')).out)).toEqual({ mean: 10, largest: 10, share: 1 });
  });

  it('draws what is no picture: a graph and what was written of it', async () => {
    const material = file('same.brelvin', JSON.stringify(newCodeMaterial('same', {}, { text: PAINT })));
    const { code, out } = await run('compare', painted, material, ...SMALL);
    expect([code, out]).toEqual([0, 'mean 0.000, largest 0 of 255; 0.00 % of the pixels differ by more than rounding']);
    expect((await run('compare', painted, file('plain.brelvin', JSON.stringify(newMaterial('plain'))), ...SMALL)).code).toBe(1);
  });

  it('refuses pictures of two sizes, and files that are none', async () => {
    expect((await run('compare', dark, large)).err).toMatch(/4 × 4 pixels, .*5 × 5: only pictures of one size/);
    expect((await run('compare', dark, file('not.png', 'text'))).err).toMatch(/not\.png: .+/);
    expect((await run('compare', dark, place('nowhere.png'))).err).toMatch(/nowhere\.png: cannot be read \(ENOENT\)/);
  });
});

describe('brelvin demos', () => {
  it('writes each demo document with all that it shows and is seen with, ready to be drawn', async () => {
    const out = place('demos');
    const { code, out: written } = await run('demos', '--out', out);
    expect(code).toBe(0);
    const files = written.split('\n');
    expect(files.length).toBeGreaterThan(30);
    const read = (name: string): BrelvinFile => readBrelvinFile(readFileSync(join(out, `${name}.brelvin`)));
    const jar = read('material-salt-glazed-jar');
    expect([...jar.beside.values()].map(({ format }) => format).sort()).toContain('brelvin-set');
    expect(jar.assets.size).toBeGreaterThan(3);
    const picture = place('flag.png');
    const drawn = await run('render', join(out, 'material-signal-flag.brelvin'), '--out', picture, ...SMALL);
    expect([drawn.code, drawn.err]).toEqual([0, '']);
    const { data } = PNG.sync.read(readFileSync(picture));
    expect(new Set(data).size).withContext('shades in the picture').toBeGreaterThan(20);
    // The same file again, byte by byte.
    const again = writeBrelvinFile(jar);
    expect(Buffer.compare(Buffer.from(again), readFileSync(join(out, 'material-salt-glazed-jar.brelvin')))).toBe(0);
  }, 120_000);
});

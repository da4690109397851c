import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Document, NodeIO } from '@gltf-transform/core';
import { buildMesh, newMaterial, type MeshData } from '@brelvin/core';
import { PNG } from 'pngjs';
import { By } from 'selenium-webdriver';
import { Bench } from '../browser/support/bench';
import { ALL_PIXELS, Browser } from '../browser/support/browser';
import { freshDatabase } from '../support/databases';
import { ServerProcess } from '../support/server-process';
import { PATIENCE, spread } from './measure';
import type { Report } from './report';

const MEBIBYTE = 1024 * 1024;

/**
 * Notes from now on how long the page's thread was held up at most by a script, and by a whole frame: on a software device
 * that is also the wait for the device's own work, which takes the same processors.
 */
const WATCH = `
  window.longest = { script: 0, frame: 0 };
  window.watch ??= new PerformanceObserver((list) => {
    for (const { duration, scripts } of list.getEntries()) {
      window.longest.frame = Math.max(window.longest.frame, duration);
      window.longest.script = Math.max(window.longest.script, ...scripts.map((script) => script.duration));
    }
  });
  window.watch.observe({ entryTypes: ['long-animation-frame'] });
`;

/** Large files through the real page: how long until they are seen, what the page's thread is held up by, and memory. */
export async function benchFiles(report: Report): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'files-'));
  const server = await ServerProcess.start(await freshDatabase());
  try {
    const { glb, obj } = await largeMeshes(folder);
    const names = ['basecolor', 'roughness', 'metallic', 'normal_gl', 'height', 'ao', 'emissive', 'opacity'];
    const eight = (side: number): string[] => names.map((name) => image(folder, `hull_${name}.png`, side));
    const laid = (what: string, files: readonly string[]): Promise<number> =>
      measured(report, server, what, async (bench) => {
        await bench.press('maps', '.graph-bar');
        await choose(bench, '.maps-tools input[type="file"]', files);
        await waitFor(bench, '.map-set');
        await bench.press('Lay', '.map-set-foot');
        await drawn(bench);
      });
    // What a surface with maps takes in any case is mostly the device's compiling; the rest is the images'.
    for (const [what, files, side, most] of [
      ['a PNG of', (side: number) => [image(folder, 'keel_basecolor.png', side)], 4096, 2000],
      ['a set of eight PNG of', eight, 2048, 4000],
    ] as const) {
      const least = await laid(`${what} 16 × 16`, files(16));
      const more = (await laid(`${what} ${side} × ${side}`, files(side))) - least;
      report.bound(`${what} ${side} × ${side}, what it takes more than 16 × 16, ms`, { median: more, low: more, high: more }, most);
    }
    for (const [what, file] of [
      ['a GLB of 1,000,000 triangles', glb],
      ['an OBJ of 1,000,000 triangles', obj],
    ] as const)
      await measured(
        report,
        server,
        what,
        async (bench) => {
          await bench.press('parts', '.graph-bar');
          await choose(bench, '.parts-tools input[type="file"]', [file]);
          await waitFor(bench, '.notice', /1,000,000 triangles/);
          await drawn(bench);
        },
        file === glb ? (bench) => outlined(report, bench) : undefined,
      );
  } finally {
    await server.stop();
    rmSync(folder, { recursive: true });
  }
}

/** On a material and in a browser of its own, so that time and memory are those of these files. */
async function measured(
  report: Report,
  server: ServerProcess,
  what: string,
  work: (bench: Bench) => Promise<void>,
  then?: (bench: Bench) => Promise<void>,
): Promise<number> {
  const browser = await Browser.open(ALL_PIXELS);
  try {
    const bench = new Bench(browser, server.address, PATIENCE);
    await browser.driver.manage().setTimeouts({ script: PATIENCE });
    const id = what.replace(/[^a-z0-9]+/gi, '-').toLowerCase();
    const document = newMaterial(what, { set: 'set-plain-sphere', rig: 'rig-north-window' });
    await server.request('POST', '/documents', { id, document });
    await bench.openMaterial(id);
    const before = peakMemory();
    await browser.driver.executeScript(WATCH);
    const started = performance.now();
    await work(bench);
    const milliseconds = performance.now() - started;
    const longest = await browser.driver.executeScript<{ script: number; frame: number }>('return window.longest');
    report.figure(`${what}, from file to picture, ms`, spread([milliseconds]));
    report.figure(`${what}, the page’s thread held up by a script at most, ms`, spread([longest.script]));
    report.figure(`${what}, the longest frame, with the wait for the device, ms`, spread([longest.frame]));
    report.figure(`${what}, peak memory of the page above what it had, MiB`, spread([(peakMemory() - before) / MEBIBYTE]));
    await then?.(bench);
    return milliseconds;
  } finally {
    await browser.close();
  }
}

/** What a grown mesh needs is worked out from all triangles. */
async function outlined(report: Report, bench: Bench): Promise<void> {
  await bench.driver.executeScript('window.longest = { script: 0, frame: 0 };');
  await bench.press('outline', '.panel-about');
  const started = performance.now();
  await bench.press('silhouette', '.outline-panel');
  await drawn(bench);
  const milliseconds = performance.now() - started;
  const { script } = await bench.driver.executeScript<{ script: number }>('return window.longest');
  report.figure('an outline round 1,000,000 triangles, until it is seen, ms', spread([milliseconds]));
  report.figure('an outline round 1,000,000 triangles, the page’s thread held up by a script at most, ms', spread([script]));
}

async function choose(bench: Bench, css: string, files: readonly string[]): Promise<void> {
  await bench.driver.wait(async () => (await bench.driver.findElements(By.css(css))).length > 0, PATIENCE, `${css} never came`);
  await bench.driver.findElement(By.css(css)).sendKeys(files.join('\n'));
}

/** Waits for a picture at rest, however long it takes to draw. */
async function drawn(bench: Bench): Promise<void> {
  const before = await bench.pictures();
  await bench.driver.wait(
    async () => (await bench.pictures()) > before && (await bench.stageAttribute('sharp')) === 'true',
    PATIENCE,
    'the Stage never came to rest',
  );
}

async function waitFor(bench: Bench, css: string, words = /(?:)/): Promise<void> {
  const said = async (): Promise<boolean> => (await bench.all(css)).length > 0 && words.test(await bench.text(css));
  await bench.driver.wait(said, PATIENCE, `${css} never came, or never said ${words.source}`);
}

/** The largest resident size so far of the renderer that uses most, bytes. */
function peakMemory(): number {
  const sizes = readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .map((pid) => {
      try {
        if (!readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('--type=renderer')) return 0;
        return Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) * 1024;
      } catch {
        // It ended meanwhile.
        return 0;
      }
    });
  return Math.max(0, ...sizes);
}

async function largeMeshes(folder: string): Promise<{ glb: string; obj: string }> {
  // Two rings of a sphere have one triangle for each segment instead of two.
  const mesh = buildMesh({ shape: 'torus', numbers: { segments: 256, sides: 128 }, smooth: true });
  const whole = repeated(mesh, 1_000_000);
  const [glb, obj] = [join(folder, 'reef.glb'), join(folder, 'reef.obj')];
  const document = new Document();
  const buffer = document.createBuffer();
  const accessor = (type: 'VEC2' | 'VEC3' | 'SCALAR', values: Float32Array | Uint32Array) =>
    document.createAccessor().setType(type).setArray(values).setBuffer(buffer);
  const primitive = document
    .createPrimitive()
    .setAttribute('POSITION', accessor('VEC3', whole.positions))
    .setAttribute('NORMAL', accessor('VEC3', whole.normals))
    .setAttribute('TEXCOORD_0', accessor('VEC2', whole.uvs))
    .setIndices(accessor('SCALAR', whole.indices));
  document.createScene().addChild(document.createNode('Reef').setMesh(document.createMesh().addPrimitive(primitive)));
  writeFileSync(glb, await new NodeIO().writeBinary(document));
  writeFileSync(obj, objText(whole));
  return { glb, obj };
}

type Plain = Pick<MeshData, 'positions' | 'normals' | 'uvs' | 'indices'>;

/** Copies of a mesh beside each other, with so many triangles in all. */
function repeated(mesh: MeshData, triangles: number): Plain {
  const copies = Math.ceil((triangles * 3) / mesh.indices.length);
  const vertices = mesh.positions.length / 3;
  const made = {
    positions: new Float32Array(mesh.positions.length * copies),
    normals: new Float32Array(mesh.normals.length * copies),
    uvs: new Float32Array(mesh.uvs.length * copies),
    indices: new Uint32Array(triangles * 3),
  };
  for (let copy = 0; copy < copies; copy++) {
    made.positions.set(
      mesh.positions.map((each, at) => each + (at % 3 === 1 ? copy * 0.8 : 0)),
      copy * mesh.positions.length,
    );
    made.normals.set(mesh.normals, copy * mesh.normals.length);
    made.uvs.set(mesh.uvs, copy * mesh.uvs.length);
    const start = copy * mesh.indices.length;
    const room = Math.min(mesh.indices.length, made.indices.length - start);
    made.indices.set(
      mesh.indices.subarray(0, room).map((each) => each + copy * vertices),
      start,
    );
  }
  return made;
}

function objText({ positions, normals, uvs, indices }: Plain): string {
  const lines: string[] = [];
  const rows = (word: string, values: Float32Array, size: number): void => {
    for (let at = 0; at < values.length; at += size)
      lines.push(`${word} ${[...values.subarray(at, at + size)].map((each) => each.toFixed(5)).join(' ')}`);
  };
  rows('v', positions, 3);
  rows('vt', uvs, 2);
  rows('vn', normals, 3);
  for (let at = 0; at < indices.length; at += 3)
    lines.push(
      `f ${[0, 1, 2]
        .map((corner) => (indices[at + corner] ?? 0) + 1)
        .map((index) => `${index}/${index}/${index}`)
        .join(' ')}`,
    );
  return lines.join('\n');
}

function image(folder: string, name: string, side: number): string {
  const png = new PNG({ width: side, height: side });
  for (let at = 0; at < png.data.length; at += 4) {
    const [x, y] = [(at / 4) % side, Math.floor(at / 4 / side)];
    // Grain that does not pack away.
    const grain = (Math.imul(x ^ (y << 12), 2_654_435_761) >>> 24) & 31;
    png.data.set([(x * 255) / side, (y * 255) / side, 128 + grain, 255], at);
  }
  const file = join(folder, name);
  writeFileSync(file, PNG.sync.write(png, { deflateLevel: 1 }));
  return file;
}

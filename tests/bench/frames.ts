import type { GraphNode, LightRig, RigLight } from '@brelvin/contract';
import {
  EMPTY_GRAPH,
  buildMesh,
  compileFor,
  drawnPixels,
  THUMBNAIL,
  EnvironmentPasses,
  FIRST_ENVIRONMENT,
  FrameRenderer,
  generatedEnvironment,
  newLight,
  newRig,
  panoramaPixels,
  START_CAMERA,
  MaterialPipelines,
  WHOLE_ENVIRONMENT,
  type EmittedMaterial,
  type Device,
  type FrameItem,
  type MaterialSource,
  type MeshBuffers,
  GLSL_TARGET,
} from '@brelvin/core';
import { WebGl2Device } from '@brelvin/devices';
import { measureCore, type CoreFigures } from './core';
import { demoFrames, previewTimes, type NamedTimes } from './demo-frames';
import { BANDS, BLINN_PHONG, METAL_ROUGH } from './hand-written';
import { wideMaterial } from './graphs';

export interface FrameFigures {
  readonly core: CoreFigures;
  readonly pairs: readonly { readonly name: string; readonly ratios: number[]; readonly milliseconds: number[] }[];
  /** Milliseconds from pixels to all levels of an environment on the device. */
  readonly prefilter: number[];
  readonly compileShare: number[];
  readonly changedOverAlone: number[];
  /** Milliseconds of a frame with 1, 4 and 8 lights, and with four shadows on top. */
  /** Sixty previews by one program and by sixty; a frame of each demo. */
  readonly previews: readonly NamedTimes[];
  readonly demos: readonly NamedTimes[];
  readonly byLights: readonly { readonly lights: string; readonly milliseconds: number[] }[];
}

type Compilable = MaterialSource;

const SIZE = { width: 512, height: 512 };
const ROUNDS = 25;
/** A sun and three lamps with falloff. */
const rig = rigOf(4);

function rigOf(count: number): LightRig {
  const lamps = Array.from({ length: count - 1 }, (_, index): [string, RigLight] => [
    `lamp${index}`,
    newLight('point', {
      position: [Math.sin(index * 2) * 2, 1, Math.cos(index * 2) * 2],
      intensity: 0.4,
      falloff: 'inverseSquare',
      order: index,
    }),
  ]);
  return { ...newRig('bench'), lights: Object.fromEntries(lamps) };
}

/** Measures frames on the page's device, generated and hand-written in turn. */
export async function run(): Promise<FrameFigures> {
  const device = WebGl2Device.create(new OffscreenCanvas(SIZE.width, SIZE.height));
  const renderer = new FrameRenderer(device);
  const mesh = renderer.uploadMesh(buildMesh({ shape: 'sphere', numbers: {}, smooth: true }));
  const pairs = [];
  for (const [name, kind, fragment] of [
    ['Blinn-Phong', 'blinnPhong', BLINN_PHONG],
    ['bands', 'bands', BANDS],
  ] as const) {
    pairs.push({ name, ...(await pair(device, renderer, mesh, lit(kind), fragment)) });
  }
  const prefilter = await prefilterTimes(device);
  pairs.push({
    name: 'metal-rough with an environment and 4 lights',
    ...(await pair(device, renderer, mesh, lit('physicalSurface'), METAL_ROUGH, await surrounded(renderer))),
  });
  const figures = {
    core: await measureCore(),
    pairs,
    prefilter,
    compileShare: await compileShares(renderer, mesh),
    changedOverAlone: await changes(device, renderer, mesh),
    byLights: await lightCosts(device, renderer, mesh),
    previews: await previewTimes(device, renderer),
    demos: await demoFrames(device, renderer),
  };
  device.destroy();
  return figures;
}

/** What lights cost: more of them, and shadows. */
async function lightCosts(device: Device, renderer: FrameRenderer, mesh: MeshBuffers): Promise<FrameFigures['byLights']> {
  const material = lit('blinnPhong');
  const { compiled } = compileFor(GLSL_TARGET, material, undefined, { variants: ['shadowed'] });
  if (!compiled) throw new Error('the benchmark material does not compile');
  const item: FrameItem = { mesh, surface: await MaterialPipelines.create(device, compiled), material };
  const suns = (count: number): LightRig => ({
    ...newRig('suns'),
    sun: newLight('sun', { casts: true }),
    lights: Object.fromEntries(Array.from({ length: count - 1 }, (_, order) => [`sun${order}`, newLight('sun', { order, casts: true })])),
  });
  const casters = { ball: { middle: [0, 0, 0], radius: 1.1 }, standing: { shown: {}, seconds: 0 } };
  const cases = [
    { lights: '1 light', scene: { rig: rigOf(1) } },
    { lights: '4 lights', scene: { rig: rigOf(4) } },
    { lights: '8 lights', scene: { rig: rigOf(8) } },
    { lights: '4 suns with shadows', scene: { rig: suns(4), casters } },
  ];
  const measured = cases.map(({ lights }) => ({ lights, milliseconds: [] as number[] }));
  for (let round = 0; round < 9; round++) {
    for (const [index, { scene }] of cases.entries()) {
      const started = performance.now();
      renderer.draw(
        { items: [item], camera: START_CAMERA, ...scene, seconds: 0 },
        { size: SIZE, samples: 1, target: 'canvas', targetSize: SIZE },
      );
      await device.finished();
      if (round > 0) measured[index]?.milliseconds.push(performance.now() - started);
    }
  }
  return measured;
}

function lit(kind: string): Compilable {
  const node: GraphNode = { kind, rev: 1, x: 0, y: 0, values: {} };
  const surface = { ...EMPTY_GRAPH, nodes: { n: node }, ribbons: { 'dock.colour': { from: 'n', outlet: 'result' } } };
  return { surface, parameters: {}, groups: {}, images: {} };
}

function compile(material: Compilable): EmittedMaterial {
  const { compiled, problems } = compileFor(GLSL_TARGET, material);
  if (!compiled) throw new Error(problems.map((problem) => problem.message).join(' '));
  return compiled;
}

/** The rig with an environment round it, on the device already. */
async function surrounded(renderer: FrameRenderer): Promise<LightRig> {
  const environment = { name: 'quay', assets: ['quay'], ...FIRST_ENVIRONMENT, shows: false };
  await renderer.environments.bring(environment, async () => panoramaPixels(generatedEnvironment('quay-at-dusk', 512)));
  return { ...rig, environment };
}

async function prefilterTimes(device: Device): Promise<number[]> {
  const passes = new EnvironmentPasses(device);
  const pixels = panoramaPixels(generatedEnvironment('quay-at-dusk', 1024));
  const times: number[] = [];
  for (let round = 0; round < 6; round++) {
    const started = performance.now();
    passes.destroy(await passes.prepare(pixels, WHOLE_ENVIRONMENT, async () => undefined));
    times.push(performance.now() - started);
  }
  return times.slice(1);
}

async function frame(device: Device, renderer: FrameRenderer, item: FrameItem, under = rig): Promise<number> {
  const started = performance.now();
  renderer.draw(
    { items: [item], camera: START_CAMERA, rig: under, seconds: 0 },
    { size: SIZE, samples: 1, target: 'canvas', targetSize: SIZE },
  );
  await device.finished();
  return performance.now() - started;
}

async function pair(
  device: Device,
  renderer: FrameRenderer,
  mesh: MeshBuffers,
  material: Compilable,
  fragment: string,
  under = rig,
): Promise<{ ratios: number[]; milliseconds: number[] }> {
  const compiled = compile(material);
  const byHand: EmittedMaterial = { ...compiled, key: 'hand', program: { ...compiled.program, fragment: { text: fragment, lines: [] } } };
  const generated: FrameItem = { mesh, surface: await MaterialPipelines.create(device, compiled), material };
  // The vertex stage is the generated one for both: it hands on the same values.
  const written: FrameItem = { mesh, surface: await MaterialPipelines.create(device, byHand), material };
  await demandSamePicture(device, renderer, generated, written, under);
  for (let warm = 0; warm < 3; warm++) {
    await frame(device, renderer, generated, under);
    await frame(device, renderer, written, under);
  }
  const ratios: number[] = [];
  const milliseconds: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const a = await several(device, renderer, round % 2 === 0 ? generated : written, under);
    const b = await several(device, renderer, round % 2 === 0 ? written : generated, under);
    const [ours, theirs] = round % 2 === 0 ? [a, b] : [b, a];
    ratios.push(ours / theirs);
    milliseconds.push(ours / 4);
  }
  return { ratios, milliseconds };
}

/** A reference that draws something else would say nothing about cost. */
async function demandSamePicture(
  device: Device,
  renderer: FrameRenderer,
  one: FrameItem,
  other: FrameItem,
  under: LightRig,
): Promise<void> {
  const shot = (item: FrameItem): Promise<Uint8Array> =>
    drawnPixels(device, renderer, { items: [item], camera: START_CAMERA, rig: under, seconds: 0 }, THUMBNAIL);
  const [a, b] = [await shot(one), await shot(other)];
  const different = a.filter((each, index) => Math.abs(each - (b[index] ?? 0)) > 2).length;
  if (different > a.length * 0.001) throw new Error(`generated and hand-written differ in ${different} values`);
}

async function several(device: Device, renderer: FrameRenderer, item: FrameItem, under = rig): Promise<number> {
  let sum = 0;
  for (let count = 0; count < 4; count++) sum += await frame(device, renderer, item, under);
  return sum;
}

/** Our compiling as a part of the whole way from a changed structure to a warm program. */
async function compileShares(renderer: FrameRenderer, mesh: MeshBuffers): Promise<number[]> {
  const shares: number[] = [];
  for (let count = 0; count < 7; count++) {
    const material = wideMaterial(200 + count);
    const started = performance.now();
    const compiled = compile(material);
    const ours = performance.now() - started;
    const surface = await renderer.prepare(compiled, { camera: START_CAMERA, rig, seconds: 0 }, mesh, material);
    shares.push(ours / (performance.now() - started));
    surface.destroy();
  }
  return shares.slice(1);
}

async function changes(device: Device, renderer: FrameRenderer, mesh: MeshBuffers): Promise<number[]> {
  const material = lit('bands');
  const surface = await MaterialPipelines.create(device, compile(material));
  const ratios: number[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    const alone = await several(device, renderer, { mesh, surface, material });
    let changed = 0;
    for (let count = 0; count < 4; count++) {
      const node: GraphNode = { kind: 'bands', rev: 1, x: 0, y: 0, values: { count: 2 + ((round + count) % 8) } };
      changed += await frame(device, renderer, {
        mesh,
        surface,
        material: { ...material, surface: { ...material.surface, nodes: { n: node } } },
      });
    }
    ratios.push(changed / alone);
  }
  return ratios.slice(2);
}

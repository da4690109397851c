import type { BrelvinDocument, GraphNode, LightRig, Material, StageSet } from '@brelvin/contract';
import {
  buildMesh,
  compileFor,
  compileOutletsFor,
  DEMO_DOCUMENTS,
  demoLibrary,
  demoPanorama,
  FLOOR,
  materialsOf,
  newFloorMaterial,
  newMaterial,
  newRig,
  newSet,
  litProgram,
  panoramaPixels,
  StageScene,
  START_CAMERA,
  type Device,
  type EnvironmentPixels,
  type FrameRenderer,
  GLSL_TARGET,
} from '@brelvin/core';

export interface NamedTimes {
  readonly name: string;
  readonly milliseconds: number[];
}

const SIZE = { width: 512, height: 512 };
const PREVIEWS = 60;
const PREVIEW_SIDE = 96;

/** A frame of every demo in the set and under the rig in which it was last seen. */
export async function demoFrames(device: Device, renderer: FrameRenderer): Promise<NamedTimes[]> {
  const times: NamedTimes[] = [];
  const materials = DEMO_DOCUMENTS.flatMap(({ id, document }) => (document.format === 'brelvin-material' ? [{ id, document }] : []));
  for (const { id, document } of materials) {
    if (id.startsWith('material-label')) continue;
    const [set, rig] = [demo<StageSet>(document.seenIn.set), demo<LightRig>(document.seenIn.rig)];
    const scene = new StageScene(device, renderer);
    scene.setBench(id);
    scene.show(set);
    const camera = scene.portrait();
    const [first] = scene.items(0);
    if (!first) throw new Error(`nothing stands in ${set.name}`);
    if (rig.environment) await renderer.environments.bring(rig.environment, demoAround);
    const named = materialsOf(set);
    const worn: { id: string; document: Material }[] = [
      ...materials.filter((each) => each.id === id || named.has(each.id)),
      { id: FLOOR, document: newFloorMaterial() },
    ];
    const lit = litProgram(rig);
    for (const each of worn) {
      const { compiled } = compileFor(device.target, each.document, demoLibrary(), { variants: lit === 'plain' ? [] : [lit] });
      if (!compiled) throw new Error(`${each.id} does not compile`);
      const surface = await renderer.prepare(compiled, { camera, rig, seconds: 0 }, first.mesh, each.document, [lit]);
      scene.assign(each.id, { material: each.document, surface });
    }
    const milliseconds: number[] = [];
    for (let count = 0; count < 6; count++) {
      const seconds = count / 10;
      const started = performance.now();
      const picture = { items: scene.items(seconds), camera, rig, seconds, casters: scene.casters(seconds) };
      renderer.draw(picture, { size: SIZE, samples: 1, target: 'canvas', targetSize: SIZE });
      await device.finished();
      milliseconds.push(performance.now() - started);
    }
    times.push({ name: document.name, milliseconds: milliseconds.slice(1) });
    scene.destroy();
  }
  return times;
}

/** Sixty small pictures by one program, and the same by a program each. */
export async function previewTimes(device: Device, renderer: FrameRenderer): Promise<NamedTimes[]> {
  const kinds = ['gradientNoise', 'checker', 'place', 'lambert', 'bands', 'brick'];
  const nodes = Object.fromEntries(
    Array.from({ length: PREVIEWS }, (_, index): [string, GraphNode] => [
      `n${index}`,
      { kind: kinds[index % kinds.length] ?? 'place', rev: 1, x: 0, y: 0, values: {} },
    ]),
  );
  const plain = newMaterial('previews');
  const material: Material = { ...plain, surface: { ...plain.surface, nodes, ribbons: {} } };
  const mesh = renderer.uploadMesh(buildMesh({ shape: 'sphere', numbers: { segments: 32, rings: 24 }, smooth: true }));
  const picture = { camera: START_CAMERA, rig: newRig('previews'), seconds: 0 };
  const all = Object.keys(nodes).map((node) => ({ node, outlet: 'result' }));
  const draw = async (wanted: typeof all): Promise<() => Promise<unknown>> => {
    const found = compileOutletsFor(GLSL_TARGET, material, wanted);
    if (!('compiled' in found)) throw new Error(found.problems[0]?.message);
    const surface = await renderer.prepare(found.compiled, picture, mesh, material);
    const cells = found.outlets.map((_, outlet) => ({ outlet, mode: 'colour' as const }));
    return () => renderer.drawOutlets(picture, { mesh, surface, material }, cells, PREVIEW_SIDE);
  };
  const started = performance.now();
  const again = await draw(all);
  await again();
  const first = performance.now() - started;
  const later: number[] = [];
  for (let count = 0; count < 5; count++) {
    const before = performance.now();
    await again();
    later.push(performance.now() - before);
  }
  const apart = performance.now();
  for (const one of all) await (await draw([one]))();
  const one = performance.now() - apart;
  await device.finished();
  return [
    { name: `${PREVIEWS} previews, compiled and drawn`, milliseconds: [first] },
    { name: `${PREVIEWS} previews, drawn again`, milliseconds: later },
    { name: `${PREVIEWS} previews by a program each`, milliseconds: [one] },
  ];
}

async function demoAround([asset]: readonly string[]): Promise<EnvironmentPixels | undefined> {
  const picture = demoPanorama(asset);
  return picture && panoramaPixels(picture);
}

function demo<T extends BrelvinDocument>(id: string | undefined): T {
  const found = DEMO_DOCUMENTS.find((each) => each.id === id)?.document ?? newSet('sphere');
  return found as T;
}

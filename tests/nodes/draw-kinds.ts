import type { GraphNode, Material } from '@brelvin/contract';
import {
  buildMesh,
  compileOutletsFor,
  FIRST_ENVIRONMENT,
  FrameRenderer,
  generatedEnvironment,
  library,
  newMaterial,
  newRig,
  panoramaPixels,
  START_CAMERA,
  THIS_LIGHT_KIND,
  type InletSpec,
  type LensMode,
  type NodeKind,
  type OutletAddress,
  GLSL_TARGET,
} from '@brelvin/core';
import { WebGl2Device } from '@brelvin/devices';

export const SIDE = 64;
/** Drawn at twice the size and averaged: smooth edges. */
const FINE = 2;

export interface KindPictures {
  readonly ids: string[];
  /** 8-bit sRGB rows, RGBA, one picture after the other, as base64. */
  readonly pixels: string;
}

const camera = { ...START_CAMERA, target: [0, 0, 0], azimuth: 0.5, elevation: 0.35, fieldOfView: 0.4, distance: 5.3 };
const SHAPE = 'Shape';
const MIRRORING: ReadonlySet<string> = new Set(['physicalSurface', 'clearCoat', 'sheenLayer', 'environmentAround', 'environmentMirrored']);
const DIRECTIONS = ['normal', 'directionToEye', 'directionToLight'];

/** A small picture of each kind: its first outlet on a sphere, the first open inlet fed by the place in the mesh. */
export async function run(): Promise<KindPictures> {
  const device = WebGl2Device.create(new OffscreenCanvas(SIDE, SIDE));
  const renderer = new FrameRenderer(device);
  const mesh = renderer.uploadMesh(buildMesh({ shape: 'sphere', numbers: { radius: 0.98, segments: 96, rings: 64 }, smooth: true }));
  const environment = { name: 'Loft window', assets: ['loft'], ...FIRST_ENVIRONMENT, intensity: 0.4, shows: false };
  await renderer.environments.bring(environment, async () => panoramaPixels(generatedEnvironment('loft-window', 512)));
  const kinds = [...library().kinds.values()].filter(({ id, overloads }) => overloads.length > 0 && id !== THIS_LIGHT_KIND);
  const pictures: Uint8Array[] = [];
  for (const kind of kinds) {
    const { material, outlet, mode } = shown(kind);
    const found = compileOutletsFor(GLSL_TARGET, material, [outlet]);
    if (!('compiled' in found)) throw new Error(`${kind.id}: ${found.problems[0]?.message}`);
    // Kinds of lighting are told apart best by one light; those that mirror need something to.
    const rig = MIRRORING.has(kind.id) ? { ...newRig('pictures'), environment } : newRig('pictures');
    const picture = { camera, rig, seconds: 1.3 };
    const surface = await renderer.prepare(found.compiled, picture, mesh, material);
    const cells = found.outlets.map((_, index) => ({ outlet: index, mode }));
    const atlas = await renderer.drawOutlets(picture, { mesh, surface, material }, cells, SIDE * FINE);
    pictures.push(averaged(atlas, atlas.length / (SIDE * FINE) / 4));
    surface.destroy();
  }
  const all = new Uint8Array(pictures.length * SIDE * SIDE * 4);
  pictures.forEach((each, index) => all.set(each, index * each.length));
  let text = '';
  for (let at = 0; at < all.length; at += 4096) text += String.fromCharCode(...all.subarray(at, at + 4096));
  return { ids: kinds.map(({ id }) => id), pixels: btoa(text) };
}

/** The first cell of an atlas at the wanted size. */
function averaged(atlas: Uint8Array, width: number): Uint8Array {
  const small = new Uint8Array(SIDE * SIDE * 4);
  for (let y = 0; y < SIDE; y++)
    for (let x = 0; x < SIDE; x++)
      for (let channel = 0; channel < 4; channel++) {
        let sum = 0;
        for (let dy = 0; dy < FINE; dy++)
          for (let dx = 0; dx < FINE; dx++) sum += atlas[((y * FINE + dy) * width + x * FINE + dx) * 4 + channel] ?? 0;
        small[(y * SIDE + x) * 4 + channel] = sum / (FINE * FINE);
      }
  return small;
}

function node(kind: string, values: GraphNode['values'] = {}): GraphNode {
  return { kind, rev: 1, x: 0, y: 0, values };
}

function shown(kind: NodeKind): { material: Material; outlet: OutletAddress; mode: LensMode } {
  const plain = newMaterial(kind.id);
  const [first] = kind.outlets;
  const nodes: Record<string, GraphNode> = {
    kind: node(kind.id),
    place: node('place'),
    hue: node('colourFromHsv', { saturation: 0.7, value: 0.8 }),
    ground: node('checker', { count: 10 }),
  };
  const ribbons: Record<string, { from: string; outlet: string }> = { 'hue.hue': { from: 'place', outlet: 'x' } };
  const fed = kind.inlets.find((inlet) => 'value' in inlet.default && source(inlet) !== undefined);
  // What already differs from point to point is seen best as it is.
  const differs = kind.inlets.some((inlet) => 'surface' in inlet.default) || kind.family === 'Light' || fed?.unit !== undefined;
  const feeding = fed && !differs ? source(fed) : undefined;
  if (fed && feeding) ribbons[`kind.${fed.name}`] = feeding;
  const shapes = kind.family === SHAPE && first && kind.id !== 'carry';
  if (shapes) ribbons['dock.offset'] = { from: 'kind', outlet: first.name };
  const material = { ...plain, surface: { ...plain.surface, nodes, ribbons } };
  if (shapes) return { material, outlet: { node: 'ground', outlet: 'result' }, mode: 'colour' };
  const directed = DIRECTIONS.includes(first?.meaning ?? '');
  return { material, outlet: { node: 'kind', outlet: first?.name ?? 'result' }, mode: directed ? 'direction' : 'colour' };
}

function source({ meaning }: InletSpec): { from: string; outlet: string } | undefined {
  if (meaning === 'colour') return { from: 'hue', outlet: 'result' };
  if (meaning === 'vector') return { from: 'place', outlet: 'result' };
  return meaning === 'number' || meaning === 'fraction' ? { from: 'place', outlet: 'x' } : undefined;
}

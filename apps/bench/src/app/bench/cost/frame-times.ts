import type { LightRig, StageSet } from '@brelvin/contract';
import { framePoints, MOST_LIGHTS, newLight, numberedLights, SUN, type PassTimes, type Picture, type PictureSize } from '@brelvin/core';
import { SAMPLES } from '../stage/paint-pictures';
import type { Measured } from '../stage/stage-session';

/** What the cost of a picture is looked at against. */
export const GROWTHS = ['pixels', 'copies', 'lights'] as const;
export type GrowthOf = (typeof GROWTHS)[number];

/** A picture with so many pixels, copies or lights. */
export interface GrowthStep {
  readonly of: GrowthOf;
  readonly count: number;
  readonly milliseconds: (measured: Measured) => Promise<number>;
}

/** Sides of the picture, of the Stage’s. */
const SIDES = [0.25, 0.5, 0.71, 1];
/** Copies along each side of a square. */
const COPIES = [1, 2, 4, 6];
const LIGHTS = [1, 2, 4, 8].filter((count) => count <= MOST_LIGHTS);
/** Pixels of the picture whose copies and lights grow: of what grows with them, only the times count. */
const FEW_PIXELS = 40_000;
/** A drawing that takes longer is not repeated. */
const LONG_MS = 300;
const REPEATS = 3;

/** How long the passes of the picture take, shadows included, which a picture at rest keeps. */
export async function passTimes({ session, picture, size, cssSize }: Measured): Promise<PassTimes> {
  const { device, renderer } = session;
  const target = device.createTexture({ ...size, format: 'rgba8unorm', samples: 1 });
  try {
    const shown = whole(picture());
    return await device.timePasses(() => renderer.draw(shown, { size, samples: SAMPLES, target, targetSize: size, cssSize }));
  } finally {
    target.destroy();
  }
}

/** Without a lens, and with all that it needs drawn anew. */
function whole(picture: Picture): Picture {
  const { casters } = picture;
  return { ...picture, lens: undefined, casters: casters && { ball: casters.ball } };
}

/** What has to be drawn to see how the cost grows, cheapest first. */
export function growthSteps(of: GrowthOf, { size, rig }: { readonly size: PictureSize; readonly rig: LightRig }): readonly GrowthStep[] {
  switch (of) {
    case 'pixels':
      return SIDES.map((side) => {
        const drawn = { width: Math.max(1, Math.round(size.width * side)), height: Math.max(1, Math.round(size.height * side)) };
        return { of, count: drawn.width * drawn.height, milliseconds: (measured) => time(measured, measured.picture(), drawn) };
      });
    case 'copies':
      return COPIES.map((side) => ({ of, count: side * side, milliseconds: (measured) => timeCopies(measured, side, fewPixels(size)) }));
    case 'lights':
      return LIGHTS.map((count) => ({
        of,
        count,
        milliseconds: (measured) => time(measured, { ...measured.picture(), rig: withLights(rig, count) }, fewPixels(size)),
      }));
  }
}

function fewPixels({ width, height }: PictureSize): PictureSize {
  const side = Math.min(1, Math.sqrt(FEW_PIXELS / (width * height)));
  return { width: Math.max(1, Math.round(width * side)), height: Math.max(1, Math.round(height * side)) };
}

/** The quickest of a few drawings; the first may still make the device ready. */
async function time({ session, cssSize }: Measured, picture: Picture, size: PictureSize): Promise<number> {
  const { device, renderer } = session;
  const target = device.createTexture({ ...size, format: 'rgba8unorm', samples: 1 });
  const shown = whole(picture);
  const once = async (): Promise<number> => {
    await device.finished();
    const started = performance.now();
    renderer.draw(shown, { size, samples: SAMPLES, target, targetSize: size, cssSize });
    await device.finished();
    return performance.now() - started;
  };
  try {
    let best = await once();
    for (let again = 0; again < REPEATS && best < LONG_MS; again++) best = Math.min(best, await once());
    return best;
  } finally {
    target.destroy();
  }
}

/** A square of copies, all of them in sight; the set stands as before afterwards. */
async function timeCopies(measured: Measured, side: number, size: PictureSize): Promise<number> {
  const { session, set, picture } = measured;
  const { scene } = session;
  try {
    scene.show(withCopies(set, side));
    const { camera, ...rest } = picture();
    const framed = framePoints(camera, scene.outline(), size.width / size.height);
    return await time(measured, { ...rest, camera: framed }, size);
  } finally {
    scene.show(set);
  }
}

/** Every mesh of it in a square of copies, without its floor. */
export function withCopies(set: StageSet, side: number): StageSet {
  const meshes = Object.entries(set.meshes).map(([id, mesh]) => {
    const spacing = Math.max(mesh.copies.spacing, APART);
    return [id, { ...mesh, copies: { ...mesh.copies, columns: side, rows: side, spacing } }] as const;
  });
  return { ...set, meshes: Object.fromEntries(meshes), floor: { ...set.floor, shown: false } };
}

/** Metres: a little more than most meshes are wide. */
const APART = 2.4;

/** The rig with so many lights: its own as far as they go, then more that throw no shadow. */
export function withLights(rig: LightRig, count: number): LightRig {
  const own = numberedLights(rig).slice(0, count);
  const has = (id: string): boolean => own.some(([each]) => each === id);
  const lights = Object.fromEntries(
    Object.entries(rig.lights).map(([id, light]) => [id, { ...light, on: has(id) || (light.on && !numbered(rig, id)) }]),
  );
  const more = Array.from({ length: count - own.length }, (_, index) => {
    const turn = (index * Math.PI * 2) / MOST_LIGHTS;
    return [
      `measured${index}`,
      newLight('sun', { order: 1000 + index, direction: [Math.cos(turn) * 0.8, 0.6, Math.sin(turn) * 0.8] }),
    ] as const;
  });
  return { ...rig, sun: { ...rig.sun, on: has(SUN) }, lights: { ...lights, ...Object.fromEntries(more) } };
}

function numbered(rig: LightRig, id: string): boolean {
  return numberedLights(rig).some(([each]) => each === id);
}

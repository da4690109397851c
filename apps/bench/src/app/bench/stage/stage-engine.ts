import {
  approach,
  buildMesh,
  compileMaterial,
  dolly,
  eyePosition,
  drawThumbnail,
  FLOOR,
  framePoints,
  FrameRenderer,
  lightsMove,
  newMaterial,
  orbit,
  originOfLine,
  pan,
  ProgramRefused,
  sightLine,
  StageScene,
  START_CAMERA,
  type CompiledMaterial,
  type Device,
  type Inspection,
  type LightRig,
  type Material,
  type MeshBuffers,
  type MeshRecipe,
  type OrbitCamera,
  type PartAddress,
  type PictureSize,
  type StageSet,
  WHOLE_PICTURE,
  type StageClocks,
  type Surface,
} from '@brelvin/core';
import { WebGl2Device } from '@brelvin/devices';
import { BehaviorSubject } from 'rxjs';
import { pngOf } from '../../shared/pixels/png-of';
import { PictureScale } from './picture-scale';

/** What the Stage shows of itself. */
export interface StageState {
  readonly compiledPrograms: number;
  readonly pictures: number;
  /** The last picture was at full size and antialiased, and no newer one is wanted. */
  readonly sharp: boolean;
  readonly hasSurface: boolean;
  readonly lost: boolean;
  readonly moves: boolean;
  /** Whether any light of the rig has a motion. */
  readonly lightsMove: boolean;
  /** Whether any part wears the material on the Bench. */
  readonly benchIsWorn: boolean;
  /** Formulas of meshes that could not be read. */
  readonly formulas: StageScene['problems'];
  /** The graphics driver's refusal, with the node it seems to be about. */
  readonly refusal?: { readonly message: string; readonly node?: string };
  readonly unavailable?: string;
}

const QUIET_MS = 160;
/** Radians a second. */
const TURNTABLE_SPEED = 0.6;
const WARM_UP_MESH: MeshRecipe = { shape: 'sphere', numbers: { segments: 12, rings: 6 }, smooth: true };

type ImageLoader = FrameRenderer['images']['load'];

export const NO_PICTURE_YET: StageState = {
  compiledPrograms: 0,
  pictures: 0,
  sharp: false,
  hasSurface: false,
  lost: false,
  moves: false,
  lightsMove: false,
  benchIsWorn: true,
  formulas: [],
};

/**
 * Draws the Stage, on demand only: small while something moves, sharp when it rests, never more than one
 * picture at a time. Survives a lost context: everything is made again from the documents.
 */
export class StageEngine {
  readonly state = new BehaviorSubject<StageState>(NO_PICTURE_YET);
  readonly cameraChanges = new BehaviorSubject<OrbitCamera>(START_CAMERA);

  private device?: Device;
  private renderer?: FrameRenderer;
  private scene?: StageScene;
  private warmUpMesh?: MeshBuffers;
  /** By the material's id; they outlive a lost context, the surfaces do not. */
  private readonly materials = new Map<string, Material>();
  private readonly programs = new Map<string, CompiledMaterial>();
  private readonly surfaces = new Map<string, Surface>();
  private readonly turns = new Map<string, number>();
  private bench = '';

  private set?: StageSet;
  private rig?: LightRig;
  private inspection = WHOLE_PICTURE;
  private wantedCamera = START_CAMERA;

  private size: PictureSize = { width: 2, height: 2 };
  private readonly scale = new PictureScale();
  private dirty = false;
  private drawing = false;
  private handle = 0;
  private lastMoved = -Infinity;
  private lastFrame = 0;
  private seconds = 0;
  private playing = true;
  private lightsPlaying = true;
  /** The lights' own clock, seconds. */
  readonly lightClock = new BehaviorSubject(0);
  private restTimer?: ReturnType<typeof setTimeout>;
  private destroyed = false;
  private framed = false;
  private turning = false;
  private firstCamera?: OrbitCamera;

  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly loadImage: ImageLoader = async () => undefined,
  ) {
    canvas.addEventListener('webglcontextlost', this.onLost);
    canvas.addEventListener('webglcontextrestored', this.onRestored);
  }

  async start(): Promise<void> {
    try {
      this.device = WebGl2Device.create(this.canvas);
      this.renderer = await FrameRenderer.create(this.device);
    } catch (error) {
      this.patch({ unavailable: error instanceof Error ? error.message : String(error) });
      return;
    }
    if (this.destroyed) return;
    this.renderer.images.load = this.loadImage;
    this.renderer.images.onArrival = () => this.moved();
    this.warmUpMesh = this.renderer.uploadMesh(buildMesh(WARM_UP_MESH));
    this.scene = new StageScene(this.device, this.renderer);
    this.scene.setBench(this.bench);
    this.showSet();
    await Promise.all([...this.programs].map(([id, compiled]) => this.show(id, compiled)));
    this.request();
  }

  destroy(): void {
    this.destroyed = true;
    cancelAnimationFrame(this.handle);
    clearTimeout(this.restTimer);
    this.canvas.removeEventListener('webglcontextlost', this.onLost);
    this.canvas.removeEventListener('webglcontextrestored', this.onRestored);
    this.device?.destroy();
  }

  setSize(size: PictureSize): void {
    if (size.width === this.size.width && size.height === this.size.height) return;
    this.size = size;
    // Until somebody takes the camera, the set stays framed, in whatever order page and documents arrive.
    if (this.scene && this.wantedCamera === this.firstCamera) this.frameAtOnce(this.scene);
    this.request();
  }

  private get cssSize(): PictureSize {
    const ratio = this.size.width / Math.max(this.canvas.clientWidth, 1);
    return { width: this.size.width / ratio, height: this.size.height / ratio };
  }

  /** Names the material on the Bench, which parts without a rule wear. */
  setBench(id: string): void {
    this.bench = id;
    this.scene?.setBench(id);
    this.patch({ hasSurface: this.surfaces.has(id), refusal: undefined });
    this.moved();
  }

  setMaterial(id: string, material: Material): void {
    this.materials.set(id, material);
    this.wear(id);
    this.moved();
  }

  /** Takes a material off the Stage. */
  forget(id: string): void {
    this.turns.set(id, (this.turns.get(id) ?? 0) + 1);
    this.scene?.wear(id, undefined);
    this.surfaces.get(id)?.destroy();
    for (const map of [this.surfaces, this.programs, this.materials]) map.delete(id);
  }

  setRig(rig: LightRig): void {
    this.rig = rig;
    this.moved();
  }

  setSet(set: StageSet): void {
    if (set === this.set) return;
    this.set = set;
    this.showSet();
    this.moved();
  }

  setPlaying(playing: boolean): void {
    this.playing = playing;
    this.request();
  }

  /** Lets the lights move, or stand; nothing else is touched by it. */
  setLightsPlaying(playing: boolean): void {
    this.lightsPlaying = playing;
    this.request();
  }

  private get clocks(): StageClocks {
    return { seconds: this.seconds, lightSeconds: this.lightClock.value };
  }

  /** Takes a new program into use once it is warm; until then the last picture stays. */
  async show(id: string, compiled: CompiledMaterial): Promise<void> {
    const turn = (this.turns.get(id) ?? 0) + 1;
    this.turns.set(id, turn);
    this.programs.set(id, compiled);
    const known = this.surfaces.get(id);
    if (known?.key === compiled.key) {
      // The same program, but its numbers may come from elsewhere in the document.
      known.adopt(compiled);
      this.wear(id);
      void this.learn(known, compiled);
      this.refuse(id, undefined);
      this.moved();
      return;
    }
    const material = this.materials.get(id);
    if (!this.renderer || !this.warmUpMesh || !this.rig || !material) return;
    try {
      const picture = { camera: this.camera, rig: this.rig, ...this.clocks };
      const next = await this.renderer.prepare(compiled, picture, this.warmUpMesh, material);
      if (turn !== this.turns.get(id)) {
        next.destroy();
        return;
      }
      this.surfaces.set(id, next);
      this.wear(id);
      known?.destroy();
      if (id === this.bench) this.patch({ hasSurface: true });
      this.refuse(id, undefined);
    } catch (error) {
      if (!(error instanceof ProgramRefused)) throw error;
      console.error(error.message, error.log);
      this.refuse(id, refusalOf(error, compiled));
    }
    this.moved();
  }

  /** Brings programs onto the device that a surface does not have yet: for shadows, or to be taken apart. */
  private async learn(surface: Surface, compiled: CompiledMaterial): Promise<void> {
    if (await surface.learn(compiled)) this.moved();
  }

  /** Takes the picture apart from now on, or puts it together again. */
  setInspection(inspection: Inspection): void {
    if (inspection === this.inspection) return;
    this.inspection = inspection;
    this.moved();
  }

  /** How what is drawn is taken apart: depth is measured over what stands on the Stage. */
  private get seenApart(): Inspection {
    if (this.inspection.view !== 'depth' || !this.scene) return this.inspection;
    const points = this.scene.outline();
    let [nearest, farthest] = [Infinity, 0];
    const eye = eyePosition(this.camera);
    for (let at = 0; at < points.length; at += 3) {
      const away = Math.hypot(...eye.map((each, axis) => each - (points[at + axis] ?? 0)));
      [nearest, farthest] = [Math.min(nearest, away), Math.max(farthest, away)];
    }
    return { ...this.inspection, nearest, farthest };
  }

  /** The part that is seen at a place of the canvas, CSS pixels from its top left. */
  pick(x: number, y: number): (PartAddress & { readonly copy: number }) | undefined {
    const { width, height } = this.canvas.getBoundingClientRect();
    return this.scene?.pick(sightLine(this.camera, (x / width) * 2 - 1, 1 - (y / height) * 2, width / height));
  }

  materialOf(part: PartAddress): string {
    return this.scene?.materialOf(part) ?? this.bench;
  }

  /** Tells where the pointer is, for what follows it; nowhere without a place. */
  pointAt(place: { readonly x: number; readonly y: number } | undefined): void {
    if (!this.scene?.followsPointer) return;
    this.scene.point(place && this.pick(place.x, place.y));
    if (this.scene.pointing) this.request();
  }

  orbitBy(azimuth: number, elevation: number): void {
    this.aim(orbit(this.wantedCamera, azimuth, elevation));
  }

  dollyBy(factor: number): void {
    this.aim(dolly(this.wantedCamera, factor));
  }

  panBy(right: number, up: number): void {
    this.aim(pan(this.wantedCamera, right, up));
  }

  frameMesh(): void {
    if (this.scene) this.aim(framePoints(this.wantedCamera, this.scene.outline(), this.size.width / this.size.height));
  }

  /** Goes to a view; the way there is damped. */
  look(camera: OrbitCamera): void {
    this.aim(camera);
  }

  /** Where the camera is or is on its way to. */
  get view(): OrbitCamera {
    return this.wantedCamera;
  }

  /** Turns the camera round what it looks at, until it is stopped. */
  setTurning(turning: boolean): void {
    if (turning === this.turning) return;
    this.turning = turning;
    this.moved();
  }

  /** The picture as it is now, at full size and antialiased, PNG. */
  async still(): Promise<Blob | undefined> {
    const { device, renderer, scene, rig, size } = this;
    if (!device || !renderer || !scene || !rig) return undefined;
    const target = device.createTexture({ ...size, format: 'rgba8unorm', samples: 1 });
    try {
      const picture = {
        items: scene.items(this.seconds),
        camera: this.camera,
        rig,
        ...this.clocks,
        casters: scene.casters(this.seconds),
        inspection: this.seenApart,
      };
      renderer.draw(picture, { size, samples: 4, target, targetSize: size, cssSize: this.cssSize, empty: 'alpha' });
      return await pngOf(await device.readPixels(target), size.width);
    } finally {
      target.destroy();
    }
  }

  private get camera(): OrbitCamera {
    return this.cameraChanges.value;
  }

  private aim(camera: OrbitCamera): void {
    this.wantedCamera = camera;
    if (matchMedia('(prefers-reduced-motion: reduce)').matches) this.cameraChanges.next(camera);
    this.moved();
  }

  /** A picture of the present state for the Library, PNG. */
  async thumbnail(): Promise<Blob | undefined> {
    if (!this.device || !this.renderer || !this.scene || !this.surfaces.has(this.bench) || !this.rig) return undefined;
    const camera = this.scene.portrait();
    const items = this.scene.items(this.seconds);
    const pixels = await drawThumbnail(this.device, this.renderer, {
      items,
      camera,
      rig: this.rig,
      ...this.clocks,
      casters: this.scene.casters(this.seconds),
    });
    return pngOf(pixels);
  }

  private wear(id: string): void {
    const material = this.materials.get(id);
    if (material) this.scene?.wear(id, { material, surface: this.surfaces.get(id) });
  }

  private refuse(id: string, refusal: StageState['refusal']): void {
    if (id === this.bench) this.patch({ refusal });
  }

  private showSet(): void {
    const { scene, set } = this;
    if (!scene || !set) return;
    scene.show(set);
    this.patch({ formulas: scene.problems, benchIsWorn: scene.benchIsWorn });
    if (set.floor.shown && !this.programs.has(FLOOR)) this.layFloor();
    if (this.framed) return;
    this.framed = true;
    this.frameAtOnce(scene);
  }

  /** The floor's own plain material. */
  private layFloor(): void {
    const material = newMaterial('Floor');
    const { compiled } = compileMaterial(material);
    this.materials.set(FLOOR, material);
    if (compiled) void this.show(FLOOR, compiled);
  }

  private frameAtOnce(scene: StageScene): void {
    this.wantedCamera = framePoints(START_CAMERA, scene.outline(), this.size.width / this.size.height);
    this.firstCamera = this.wantedCamera;
    this.cameraChanges.next(this.wantedCamera);
  }

  private moved(): void {
    this.lastMoved = performance.now();
    this.request();
  }

  private request(): void {
    this.dirty = true;
    // What stands there is no longer what is wanted.
    if (this.state.value.sharp) this.patch({ sharp: false });
    if (!this.drawing && !this.handle && !this.destroyed) this.handle = requestAnimationFrame((now) => void this.frame(now));
  }

  private async frame(now: number): Promise<void> {
    this.handle = 0;
    const elapsed = Math.min((now - this.lastFrame) / 1000, 0.1);
    this.lastFrame = now;
    const { renderer, device, scene, rig } = this;
    if (!renderer || !device || !scene || !rig || this.state.value.lost) return;
    this.dirty = false;
    this.drawing = true;
    if (this.turning) {
      const turned = orbit(this.wantedCamera, elapsed * TURNTABLE_SPEED, 0);
      this.wantedCamera = turned;
      this.cameraChanges.next(orbit(this.camera, elapsed * TURNTABLE_SPEED, 0));
      this.lastMoved = now;
    }
    if (this.camera !== this.wantedCamera) {
      const next = approach(this.camera, this.wantedCamera, elapsed);
      this.cameraChanges.next(next);
      this.lastMoved = now;
    }
    const { moves } = scene;
    if (scene.pointing) {
      scene.advancePointer(elapsed);
      this.lastMoved = now;
    }
    const lightsRun = this.lightsPlaying && lightsMove(rig);
    if (this.playing && moves) this.seconds += elapsed;
    if (lightsRun) this.lightClock.next(this.lightClock.value + elapsed);
    const runs = (this.playing && moves) || lightsRun;
    const small = runs || now - this.lastMoved < QUIET_MS;
    const scale = small ? this.scale.current : 1;
    const targetSize = this.size;
    if (this.canvas.width !== targetSize.width || this.canvas.height !== targetSize.height) {
      Object.assign(this.canvas, targetSize);
    }
    const size = { width: Math.max(2, Math.round(targetSize.width * scale)), height: Math.max(2, Math.round(targetSize.height * scale)) };
    const started = performance.now();
    renderer.draw(
      {
        items: scene.items(this.seconds),
        camera: this.camera,
        rig,
        ...this.clocks,
        casters: scene.casters(this.seconds),
        inspection: this.seenApart,
      },
      { size, samples: small ? 1 : 4, target: 'canvas', targetSize, cssSize: this.cssSize },
    );
    await device.finished();
    if (small) this.scale.learn(scale, performance.now() - started);
    this.drawing = false;
    this.patch({
      compiledPrograms: device.statistics.compiledPrograms,
      pictures: this.state.value.pictures + 1,
      sharp: !small && !this.dirty,
      moves,
      lightsMove: lightsMove(rig),
      benchIsWorn: scene.benchIsWorn,
    });
    this.afterFrame(runs, small);
  }

  private afterFrame(runs: boolean, small: boolean): void {
    if (this.destroyed) return;
    if (this.dirty || runs || this.turning || this.scene?.pointing || this.camera !== this.wantedCamera) {
      this.request();
      return;
    }
    clearTimeout(this.restTimer);
    if (small) this.restTimer = setTimeout(() => this.request(), QUIET_MS + 10);
  }

  private patch(change: Partial<StageState>): void {
    this.state.next({ ...this.state.value, ...change });
  }

  private readonly onLost = (event: Event): void => {
    // Says that the context may come back.
    event.preventDefault();
    for (const [id, turn] of this.turns) this.turns.set(id, turn + 1);
    cancelAnimationFrame(this.handle);
    this.handle = 0;
    this.patch({ lost: true });
  };

  private readonly onRestored = (): void => {
    this.device = undefined;
    this.renderer = undefined;
    this.scene = undefined;
    this.surfaces.clear();
    this.drawing = false;
    this.patch({ lost: false, hasSurface: false, sharp: false, compiledPrograms: 0 });
    void this.start();
  };
}

function refusalOf(error: ProgramRefused, compiled: CompiledMaterial): StageState['refusal'] {
  const source = error.stage === 'link' ? undefined : compiled.glsl[error.stage];
  const origin = source && error.line !== undefined ? originOfLine(source, error.line) : undefined;
  return { message: `${error.message} This is a defect in Brelvin, not in your material.`, node: origin?.path };
}

import {
  buildMesh,
  FrameRenderer,
  lightsMove,
  placeInPicture,
  sightLine,
  StageScene,
  type CompareView,
  type EmittedMaterial,
  type Device,
  type Inspection,
  type LightRig,
  type Material,
  type MeshBuffers,
  type EmittedOutlets,
  type PartAddress,
  type Picture,
  type PictureSize,
  type StageSet,
  WHOLE_PICTURE,
  type StageClocks,
  type Surface,
} from '@brelvin/core';
import { WebGl2Device } from '@brelvin/devices';
import { BehaviorSubject, filter, firstValueFrom, merge, Subject } from 'rxjs';
import { stillOf, thumbnailOf } from './kept-pictures';
import { measured } from './measured-depth';
import { gauge, ProgramGauges, type Pace } from './program-gauge';
import { Opening } from './opening';
import { paintPictures } from './paint-pictures';
import { PictureScale } from './picture-scale';
import { OutletLens, type LensWish, type PreviewAtlas, type PreviewWish, type ProbedOutlets } from './outlet-lens';
import { OTHER, SecondPicture, type OtherPicture } from './second-picture';
import { StageCamera } from './stage-camera';
import { PREVIEW_CAMERA, PREVIEW_MESH, WARM_UP_MESH } from './stage-meshes';
import { connectLoaders, NO_LOADERS, type StageLoaders } from './stage-loaders';
import { NO_PICTURE_YET, type StageState } from './stage-state';
import { StageSurfaces } from './stage-surfaces';

const QUIET_MS = 160;

/**
 * Draws the Stage, on demand only: small while something moves, sharp when it rests, never more than one
 * picture at a time. Survives a lost context: everything is made again from the documents.
 */
export class StageEngine {
  readonly state = new BehaviorSubject<StageState>(NO_PICTURE_YET);
  readonly camera = new StageCamera(() => this.moved());

  private device?: Device;
  private renderer?: FrameRenderer;
  private scene?: StageScene;
  private warmUpMesh?: MeshBuffers;
  private readonly surfaces = new StageSurfaces({
    prepare: (id, compiled, material) => this.prepare(id, compiled, material),
    begun: () => this.patch({ complete: false }),
    worn: (id) => this.wear(id),
    refused: (id, refusal) => this.refuse(id, refusal),
  });
  private bench = '';
  private readonly gauges = new ProgramGauges();
  private readonly second = new SecondPicture();
  private readonly outlets = new OutletLens(this.surfaces);
  private previewMesh?: MeshBuffers;
  /** A picture was drawn. */
  readonly drawn = new Subject<void>();

  private set?: StageSet;
  private rig?: LightRig;
  private inspection = WHOLE_PICTURE;

  private size: PictureSize = { width: 2, height: 2 };
  private readonly scale = new PictureScale();
  private dirty = false;
  private drawing = false;
  private readonly freed = new Subject<void>();
  private handle = 0;
  private lastMoved = -Infinity;
  private readonly opening = new Opening(() => this.surfaces.prepares || !this.surfaces.has(this.bench));
  /** Milliseconds that the last picture took. */
  private cost = 0;
  private lastFrame = 0;
  private seconds = 0;
  private playing = true;
  private lightsPlaying = true;
  /** The lights' own clock, seconds. */
  readonly lightClock = new BehaviorSubject(0);
  private restTimer?: ReturnType<typeof setTimeout>;
  private destroyed = false;
  private framed = false;
  /** Drawings at rest since something changed. */
  private rested = 0;

  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly loaders: StageLoaders = NO_LOADERS,
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
    connectLoaders(this.renderer, this.loaders, {
      arrived: () => this.moved(),
      lacked: () => this.tellLacks(),
      meshArrived: () => this.meshArrived(),
      filtered: (share) => this.patch({ filtering: share }),
      idle: () => this.gauges.idle(),
    });
    this.warmUpMesh = this.renderer.uploadMesh(buildMesh(WARM_UP_MESH));
    this.scene = new StageScene(this.device, this.renderer);
    this.scene.setBench(this.bench);
    this.showSet();
    this.opening.begin();
    await this.surfaces.showAll();
    await this.standSecond();
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
    this.frameUntouched();
    this.request();
  }

  /** Width over height of one picture. */
  private get aspect(): number {
    const { width, height } = this.second.sizeOf(this.size);
    return width / height;
  }

  private get cssSize(): PictureSize {
    const ratio = this.size.width / Math.max(this.canvas.clientWidth, 1);
    return { width: this.size.width / ratio, height: this.size.height / ratio };
  }

  /** Names the material on the Bench, which parts without a rule wear. */
  setBench(id: string): void {
    this.bench = id;
    this.opening.begin();
    this.scene?.setBench(id);
    this.patch({ hasSurface: this.surfaces.has(id), refusal: undefined });
    void this.reconsiderPace();
    this.moved();
  }

  setMaterial(id: string, material: Material): void {
    this.surfaces.setMaterial(id, material);
    if (id === this.bench) this.outlets.follow(material);
  }

  /** Takes a material off the Stage. @param programs of it: whether they stay on the device for when it comes back */
  forget(id: string, programs: 'go' | 'stay' = 'go'): void {
    this.surfaces.forget(id, programs);
  }

  /** Draws a second picture from now on, of another material or under another rig; one again without it. */
  setOther(other: OtherPicture | undefined): void {
    const before = this.aspect;
    if (this.second.want(other, this.surfaces)) void this.standSecond();
    if (!other) this.patch({ compared: undefined });
    this.refit(before);
    this.moved();
  }

  setCompareView(view: CompareView): void {
    const before = this.aspect;
    this.second.view = view;
    this.refit(before);
    this.moved();
  }

  /** Has what stands there fill the picture, whatever its shape, until somebody takes the camera. */
  frameUntouched(): void {
    if (this.scene) this.camera.frameAtFirst(this.scene.outline(), this.aspect);
  }

  /** Has what stands there fill the picture at once: it is something else than before. */
  frameAnew(): void {
    if (this.scene) this.camera.frameAnew(this.scene.outline(), this.aspect);
    void this.reconsiderPace();
  }

  /** A picture of another shape shows the same. */
  private refit(before: number): void {
    this.frameUntouched();
    if (this.scene && before !== this.aspect) this.camera.refit(this.scene.outline(), before, this.aspect);
  }

  /** A program that was slow on what stood there before may be quick on what stands there now; one from beside the Bench is new. */
  private async reconsiderPace(): Promise<void> {
    const surface = this.surfaces.wornAs(this.bench)?.surface;
    if (!surface || (this.gauges.knows(surface) && this.pace.scale === 1)) return;
    await this.gauges.take(surface, () => this.gauge(surface));
    this.moved();
  }

  private async standSecond(): Promise<void> {
    const { device, renderer, set } = this;
    if (!device || !renderer || !set) return;
    await this.second.stand(device, renderer, set, this.bench, this.surfaces);
    this.moved();
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

  /** Takes up a program that gives the values of outlets; comes back when it can be looked through. */
  async setOutlets(program: EmittedOutlets | undefined): Promise<void> {
    await this.outlets.show(program, this.surfaces.wornAs(this.bench)?.material);
    this.moved();
  }

  /** Shows an outlet's value on the mesh from now on, or the picture again. */
  setLens(wish: LensWish | undefined): void {
    this.outlets.look(wish);
    this.moved();
  }

  /** Whether the values of outlets can be read already. */
  get canProbe(): boolean {
    return this.outlets.ready;
  }

  /** The values of outlets at a place of the canvas, CSS pixels from its top left; nothing where the material is not seen. */
  probe(x: number, y: number): Promise<ProbedOutlets | undefined> {
    const { renderer, scene, rig } = this;
    if (!renderer || !scene || !rig) return Promise.resolve(undefined);
    const { width, height } = this.canvas.getBoundingClientRect();
    const { sides } = this.second;
    const [size, css] = [this.second.sizeOf(this.size), this.second.sizeOf(this.cssSize)];
    const pixel = { x: (((x / width) * sides) % 1) * size.width, y: (y / height) * size.height };
    return this.outlets.probe(renderer, (surface) => this.picture(scene, rig, surface), pixel, size, css);
  }

  /** Least and largest value of an outlet on what is seen. */
  range(wish: Pick<LensWish, 'outlet' | 'component'>): Promise<{ low: number; high: number } | undefined> {
    const { renderer, scene, rig } = this;
    if (!renderer || !scene || !rig) return Promise.resolve(undefined);
    return this.outlets.range(renderer, (surface) => this.picture(scene, rig, surface), wish);
  }

  /** Small pictures of outlets on a sphere under the rig's lights; `side` in pixels. */
  previews(wishes: readonly PreviewWish[], side: number): Promise<PreviewAtlas | undefined> {
    const { renderer, rig } = this;
    if (!renderer || !rig) return Promise.resolve(undefined);
    this.previewMesh ??= renderer.uploadMesh(buildMesh(PREVIEW_MESH));
    return this.outlets.previews(renderer, { camera: PREVIEW_CAMERA, rig, ...this.clocks }, this.previewMesh, wishes, side);
  }

  /** What small pictures are made of besides their program: as long as it is the same, they are. */
  get previewedState(): readonly unknown[] {
    return [this.surfaces.wornAs(this.bench)?.material, this.rig, this.seconds, this.lightClock.value];
  }

  /** Where a point of world space is seen, CSS pixels from the canvas' top left. */
  placeOf(position: readonly number[]): { readonly x: number; readonly y: number } | undefined {
    const { width, height } = this.canvas.getBoundingClientRect();
    const { sides } = this.second;
    const seen = placeInPicture(this.camera.now, position, width / sides / height);
    return seen.depth > 0.01 ? { x: ((seen.x + 1) / 2) * (width / sides), y: ((1 - seen.y) / 2) * height } : undefined;
  }

  private get complete(): boolean {
    return this.renderer?.awaits === false && !this.surfaces.prepares;
  }

  private get clocks(): StageClocks {
    return { seconds: this.seconds, lightSeconds: this.lightClock.value };
  }

  /** Takes a new program into use once it is warm; until then the last picture stays. */
  show(id: string, compiled: EmittedMaterial): Promise<void> {
    return this.surfaces.show(id, compiled);
  }

  private prepare(id: string, compiled: EmittedMaterial, material: Material): Promise<Surface> | undefined {
    const { renderer, warmUpMesh, rig } = this;
    if (!renderer || !warmUpMesh || !rig) return undefined;
    return renderer.prepare(compiled, { camera: this.camera.now, rig, ...this.clocks }, warmUpMesh, material).then(async (surface) => {
      if (id === this.bench) await this.gauges.take(surface, () => this.gauge(surface));
      return surface;
    });
  }

  /** Draws what stands there with a new program, small and out of sight, before it takes the old one's place. */
  private gauge(surface: Surface): Promise<Pace> | undefined {
    const { renderer, device, scene, rig, size } = this;
    if (!renderer || !device || !scene || !rig || size.width <= 2) return undefined;
    return gauge(device, renderer, () => this.picture(this.scene ?? scene, this.rig ?? rig, surface), size);
  }

  /** The pace of the program on the Bench. */
  private get pace(): Pace {
    return this.gauges.paceOf(this.surfaces.wornAs(this.bench)?.surface);
  }

  /** Takes the picture apart from now on, or puts it together again. */
  setInspection(inspection: Inspection): void {
    if (inspection === this.inspection) return;
    this.inspection = inspection;
    this.moved();
  }

  /** The part that is seen at a place of the canvas, CSS pixels from its top left. */
  pick(x: number, y: number): (PartAddress & { readonly copy: number }) | undefined {
    const { width, height } = this.canvas.getBoundingClientRect();
    const { sides } = this.second;
    const across = ((x / width) * sides) % 1;
    return this.scene?.pick(sightLine(this.camera.now, across * 2 - 1, 1 - (y / height) * 2, width / sides / height));
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

  frameMesh(): void {
    if (this.scene) this.camera.frame(this.scene.outline(), this.aspect);
  }

  /** The picture as it is now, at full size and antialiased, PNG. */
  async still(): Promise<Blob | undefined> {
    return this.between(async () => {
      const { device, renderer, scene, rig, size } = this;
      if (!device || !renderer || !scene || !rig) return undefined;
      return stillOf(device, renderer, this.picture(scene, rig), { size, cssSize: this.cssSize });
    });
  }

  /** A picture of the present state for the Library, PNG; none while something that it shows is on its way. */
  async thumbnail(): Promise<Blob | undefined> {
    return this.between(async () => {
      const { device, renderer, scene, rig } = this;
      if (!device || !renderer || !scene || !rig || !this.surfaces.has(this.bench) || !this.complete) return undefined;
      return thumbnailOf(device, renderer, scene, { rig, ...this.clocks });
    });
  }

  /** Draws something else between two pictures: reading it back would wait for one that was begun meanwhile. */
  private async between<T>(work: () => Promise<T>): Promise<T | undefined> {
    while (this.drawing && !this.state.value.lost) await firstValueFrom(merge(this.freed, this.state.pipe(filter(({ lost }) => lost))));
    const { device } = this;
    if (this.state.value.lost) return undefined;
    this.drawing = true;
    try {
      return await work();
    } finally {
      if (device === this.device) {
        this.free();
        if (this.dirty) this.request();
      }
    }
  }

  private free(): void {
    this.drawing = false;
    this.freed.next();
  }

  /** The material of the second picture stands there in the place of the one on the Bench. */
  private wear(id: string): void {
    const worn = this.surfaces.wornAs(id);
    if (id !== OTHER) this.scene?.wear(id, worn);
    this.second.wear(id, worn);
    this.tellLacks();
    if (id === this.bench && this.surfaces.has(id)) this.patch({ hasSurface: true });
    this.moved();
  }

  private refuse(id: string, refusal: StageState['refusal']): void {
    if (id === this.bench) this.patch({ refusal });
    this.moved();
  }

  private showSet(): void {
    const { scene, set } = this;
    if (!scene || !set) return;
    scene.show(set);
    this.second.show(set);
    this.patch({ formulas: scene.problems, benchIsWorn: scene.benchIsWorn, awaitsMeshes: scene.awaitsMeshes });
    if (this.framed) return;
    this.framed = true;
    this.frameUntouched();
  }

  private meshArrived(): void {
    const { scene } = this;
    scene?.refresh();
    this.second.refresh();
    if (scene) this.patch({ formulas: scene.problems, awaitsMeshes: scene.awaitsMeshes });
    this.frameUntouched();
    this.moved();
  }

  private tellLacks(): void {
    const lacks = this.surfaces.missed(this.renderer?.images.lacks ?? []);
    if (lacks.length + this.state.value.lacks.length > 0) this.patch({ lacks });
  }

  private moved(): void {
    this.rested = 0;
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
    // Something else is drawn at the moment; after it comes the next picture.
    if (this.drawing) return;
    const pause = this.opening.pause(now, this.lastFrame, this.cost);
    if (pause > 0) {
      this.requestAfter(pause);
      return;
    }
    const elapsed = Math.min((now - this.lastFrame) / 1000, 0.1);
    this.lastFrame = now;
    const { renderer, device, scene, rig } = this;
    if (!renderer || !device || !scene || !rig || this.state.value.lost) return;
    this.dirty = false;
    this.drawing = true;
    if (this.camera.advance(elapsed)) this.lastMoved = now;
    const { moves } = scene;
    if (scene.pointing) {
      scene.advancePointer(elapsed);
      this.lastMoved = now;
    }
    const lightsRun = this.lightsPlaying && lightsMove(rig);
    if (this.playing && moves) this.seconds += elapsed;
    if (lightsRun) this.lightClock.next(this.lightClock.value + elapsed);
    const runs = (this.playing && moves) || lightsRun;
    const small = runs || now - this.lastMoved < QUIET_MS || this.opening.lasts;
    if (!small) this.opening.end();
    const { pace, canvas, second, size, cssSize } = this;
    const scale = Math.min(small ? this.scale.current : 1, pace.scale);
    const started = performance.now();
    const pictures = this.pictures(scene, rig);
    const measures = !small && !pictures[0]?.lens;
    const painted = await paintPictures(pictures, { device, renderer, canvas, second, size, cssSize, scale, measures });
    const { costs, clipped = this.state.value.clipped } = painted;
    this.cost = performance.now() - started;
    if (small && pace.scale === 1) this.scale.learn(scale, this.cost);
    const worn = this.surfaces.wornAs(this.bench)?.surface;
    if (!small && this.gauges.learn(worn, this.cost)) this.moved();
    if (!small && this.complete && this.gauges.doubts(worn)) void this.reconsiderPace();
    const two = pictures.length === 2;
    const difference = two && !small && !this.dirty ? await this.second.difference() : undefined;
    const rests = !small && !this.dirty;
    // The context was lost meanwhile, and another device draws now.
    if (device !== this.device) return;
    const compared = two ? (small ? this.state.value.compared : { costs, difference }) : undefined;
    // What a picture costs is told by its second drawing; the first one also makes the driver ready.
    if (two && !small && this.rested++ === 0) this.request();
    this.free();
    this.patch({
      compiledPrograms: device.statistics.compiledPrograms,
      compared,
      pictures: this.state.value.pictures + 1,
      // A picture that was drawn small while its program is gauged once more is not the last word.
      sharp: rests && !this.dirty && !this.gauges.isTaking(worn),
      clipped,
      complete: this.complete,
      moves,
      lightsMove: lightsMove(rig),
      benchIsWorn: scene.benchIsWorn,
      tooSlow: pace.scale < 1 ? pace.milliseconds : undefined,
    });
    this.afterFrame(runs, small);
    this.drawn.next();
  }

  /** What is drawn: one picture, or two of the same set. */
  private pictures(scene: StageScene, rig: LightRig): Picture[] {
    const { ready } = this.second;
    return [this.picture(scene, rig), ...(ready ? [this.picture(ready.scene, ready.rig)] : [])];
  }

  /** @param program of outlets, that what wears the material on the Bench wears instead */
  private picture(scene: StageScene, rig: LightRig, program?: Surface): Picture {
    const { seconds } = this;
    const lens = program || scene !== this.scene ? undefined : this.outlets.lens;
    return {
      lens,
      items: scene.items(seconds, program ?? lens?.surface),
      camera: this.camera.now,
      rig,
      ...this.clocks,
      casters: scene.casters(seconds),
      inspection: this.scene ? measured(this.inspection, this.scene, this.camera.now) : this.inspection,
    };
  }

  private afterFrame(runs: boolean, small: boolean): void {
    if (this.destroyed) return;
    if (this.dirty || runs || this.camera.moves || this.scene?.pointing) {
      this.request();
      return;
    }
    clearTimeout(this.restTimer);
    if (small) this.requestAfter((this.opening.lasts ? this.opening.left : QUIET_MS) + 10);
  }

  private requestAfter(milliseconds: number): void {
    clearTimeout(this.restTimer);
    this.restTimer = setTimeout(() => this.request(), milliseconds);
  }

  private patch(change: Partial<StageState>): void {
    this.state.next({ ...this.state.value, ...change });
  }

  private readonly onLost = (event: Event): void => {
    // Says that the context may come back.
    event.preventDefault();
    this.surfaces.interruptAll();
    cancelAnimationFrame(this.handle);
    this.handle = 0;
    this.patch({ lost: true, sharp: false });
  };

  private readonly onRestored = (): void => {
    this.device = undefined;
    this.renderer = undefined;
    this.scene = undefined;
    this.second.lose();
    this.previewMesh = undefined;
    this.surfaces.lose();
    this.drawing = false;
    this.patch({ lost: false, hasSurface: false, sharp: false, compiledPrograms: 0 });
    void this.start();
  };
}

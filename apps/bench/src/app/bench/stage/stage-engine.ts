import type { LightRig, Material, StageSet } from '@brelvin/contract';
import {
  lightsMove,
  litProgram,
  placeInPicture,
  sightLine,
  WHOLE_PICTURE,
  type CompareView,
  type EmittedMaterial,
  type EmittedOutlets,
  type Inspection,
  type LitProgram,
  type PartAddress,
  type Picture,
  type PictureSize,
  type MaterialPipelines,
} from '@brelvin/core';
import type { PageDevice, PageDeviceName } from '@brelvin/devices';
import { BehaviorSubject, Subject } from 'rxjs';
import { FrameLoop, SCREEN_CLOCK } from './frame-loop';
import { measured } from './measured-depth';
import type { StillWish } from './kept-pictures';
import { Opening } from './opening';
import { OutletLens, type LensWish, type PreviewAtlas, type PreviewWish, type ProbedOutlets } from './outlet-lens';
import { paintPictures } from './paint-pictures';
import { DynamicResolution } from './dynamic-resolution';
import { ProgramGauges, type FrameCost } from './program-gauge';
import { OTHER, SecondPicture, type OtherPicture } from './second-picture';
import { StageCamera } from './stage-camera';
import { RunningClocks } from './stage-clocks';
import { StageDevice } from './stage-device';
import { NO_LOADERS, type StageLoaders } from './stage-loaders';
import { PREVIEW_CAMERA } from './stage-meshes';
import { pictureOf, StageSession, type Measured, type Sight } from './stage-session';
import { awaitedBy, NO_PICTURE_YET, type Awaited, type StageState } from './stage-state';
import { materialOf } from './on-field';
import { StageSurfaces } from './stage-surfaces';
import { whileThere } from './while-there';

/**
 * The Stage: what stands there, how it is looked at, and pictures of it, whenever its `FrameLoop` says so. Survives a lost
 * device, and the change to another kind: another `StageSession` is made of the same documents.
 */
export class StageEngine {
  readonly state = new BehaviorSubject<StageState>(NO_PICTURE_YET);
  readonly camera = new StageCamera(() => this.moved());
  /** A picture was drawn. */
  readonly drawn = new Subject<void>();

  private readonly devices: StageDevice;
  private wished?: PageDeviceName;
  private session?: StageSession;
  private set?: StageSet;
  private rig?: LightRig;
  private bench = '';
  private inspection = WHOLE_PICTURE;
  private size: PictureSize = { width: 2, height: 2 };
  private readonly clocks = new RunningClocks();
  private readonly surfaces = new StageSurfaces({
    fits: ({ program }) => !this.session || program.target === this.session.device.target.name,
    prepare: (id, compiled, material, lit) => this.prepare(id, compiled, material, lit),
    begun: () => this.patch({ complete: false }),
    worn: (id) => this.wear(id),
    refused: (id, refusal) => this.refuse(id, refusal),
  });
  private readonly second = new SecondPicture();
  private readonly outlets = new OutletLens(this.surfaces);
  private readonly gauges = new ProgramGauges();
  private readonly scale = new DynamicResolution();
  private readonly opening = new Opening(() => this.surfaces.prepares || !this.surfaces.has(this.bench));
  private readonly loop = new FrameLoop(SCREEN_CLOCK, this.opening, {
    advance: (elapsed) => this.advance(elapsed),
    paint: (small) => this.paint(small),
    painted: (rests) => this.painted(rests),
    goesOn: () => this.camera.moves || this.session?.scene.pointing === true,
    outdated: () => this.state.value.sharp && this.patch({ sharp: false }),
  });
  /** Of the last picture, until it is told. */
  private seen: Partial<StageState> = {};
  /** Drawings at rest since something changed. */
  private rested = 0;
  private framed = false;

  /** @param place of the picture in the page, which gets a canvas */
  constructor(
    private readonly place: HTMLElement,
    private readonly loaders: StageLoaders = NO_LOADERS,
  ) {
    this.devices = new StageDevice(place);
  }

  /** The lights' own clock, seconds. */
  get lightClock(): BehaviorSubject<number> {
    return this.clocks.lights;
  }

  /** Draws on this device from now on; what stands there and its light were handed over before the first one is named. */
  async drawOn(wished: PageDeviceName): Promise<void> {
    if (wished === this.wished) return;
    this.wished = wished;
    this.devices.forgive(wished);
    await this.open();
  }

  private async open(): Promise<void> {
    const { wished } = this;
    if (!wished) return;
    try {
      const drawn = await this.devices.draw(wished);
      if (!drawn) return;
      const { opened, name, instead } = drawn;
      if (opened.device === this.session?.device) {
        this.patch({ device: { name, instead } });
        return;
      }
      this.leave();
      // Whoever writes programs has to know what they are for.
      this.patch({ device: { name, instead }, unavailable: undefined, lost: false });
      this.session = this.openSession(opened);
      void opened.lost.then(({ back }) => this.lose(opened, back));
    } catch (error) {
      this.patch({ unavailable: error instanceof Error ? error.message : String(error) });
      return;
    }
    this.loop.resume();
    this.tellSet();
    this.opening.begin();
    await this.surfaces.showAll();
    this.standSecond();
    this.loop.request();
  }

  private openSession({ device }: PageDevice): StageSession {
    const { set, rig, bench } = this;
    if (!set || !rig) throw new Error('the Stage has nothing to show');
    return new StageSession(device, { set, rig, bench }, this.loaders, {
      arrived: () => this.moved(),
      lacked: () => this.tellLacks(),
      meshArrived: () => this.meshArrived(),
      filtered: (share) => this.patch({ filtering: share }),
      idle: () => this.gauges.idle(),
    });
  }

  /** The device is gone; another one is opened as soon as there may be one. */
  private async lose(gone: PageDevice, back: Promise<void>): Promise<void> {
    if (gone.device !== this.session?.device) return;
    this.surfaces.interruptAll();
    this.loop.halt();
    this.devices.lose();
    this.patch({ lost: true, sharp: false });
    await back;
    if (gone.device === this.session?.device) await this.open();
  }

  /** Gives up all that is on a device: it is gone, or another one draws from now on. */
  private leave(): void {
    if (!this.session) return;
    this.loop.halt();
    this.session = undefined;
    this.second.lose();
    this.surfaces.interruptAll();
    this.surfaces.lose();
    this.patch({ hasSurface: false, sharp: false, compiledPrograms: 0 });
  }

  destroy(): void {
    this.loop.stop();
    this.devices.close();
  }

  // What stands there

  setSize(size: PictureSize): void {
    if (size.width === this.size.width && size.height === this.size.height) return;
    this.size = size;
    this.frameUntouched();
    this.loop.request();
  }

  /** Names the material on the Bench, which parts without a rule wear. */
  setBench(id: string): void {
    this.bench = id;
    this.opening.begin();
    this.session?.scene.setBench(id);
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

  /** Takes a new program into use once it is warm; until then the last picture stays. */
  show(id: string, compiled: EmittedMaterial): Promise<void> {
    return this.surfaces.show(id, compiled);
  }

  setRig(rig: LightRig): void {
    this.rig = rig;
    if (this.session) this.session.rig = rig;
    this.light();
    this.moved();
  }

  setSet(set: StageSet): void {
    if (set === this.set) return;
    this.set = set;
    this.session?.scene.show(set);
    this.second.show(set);
    this.tellSet();
    this.moved();
  }

  materialOf(part: PartAddress): string {
    return this.session?.scene.materialOf(part) ?? this.bench;
  }

  // How it is looked at

  setPlaying(playing: boolean): void {
    this.clocks.playing = playing;
    this.loop.request();
  }

  /** Lets the lights move, or stand; nothing else is touched by it. */
  setLightsPlaying(playing: boolean): void {
    this.clocks.lightsPlaying = playing;
    this.loop.request();
  }

  /** Takes the picture apart from now on, or puts it together again. */
  setInspection(inspection: Inspection): void {
    if (inspection === this.inspection) return;
    this.inspection = inspection;
    this.moved();
  }

  /** Draws a second picture from now on, of another material or under another rig; one again without it. */
  setOther(other: OtherPicture | undefined): void {
    const before = this.aspect;
    if (this.second.want(other, this.surfaces)) this.standSecond();
    if (!other) this.patch({ compared: undefined });
    this.light();
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
    if (this.session) this.camera.frameAtFirst(this.session.scene.outline(), this.aspect);
  }

  /** Has what stands there fill the picture at once: it is something else than before. */
  frameAnew(): void {
    if (this.session) this.camera.frameAnew(this.session.scene.outline(), this.aspect);
    void this.reconsiderPace();
  }

  frameMesh(): void {
    if (this.session) this.camera.frame(this.session.scene.outline(), this.aspect);
  }

  /** A picture of another shape shows the same. */
  private refit(before: number): void {
    this.frameUntouched();
    if (this.session && before !== this.aspect) this.camera.refit(this.session.scene.outline(), before, this.aspect);
  }

  /** Tells where the pointer is, for what follows it; nowhere without a place. */
  pointAt(place: { readonly x: number; readonly y: number } | undefined): void {
    const scene = this.session?.scene;
    if (!scene?.followsPointer) return;
    scene.point(place && this.pick(place.x, place.y));
    if (scene.pointing) this.loop.request();
  }

  /** The part that is seen at a place of the canvas, CSS pixels from its top left. */
  pick(x: number, y: number): (PartAddress & { readonly copy: number }) | undefined {
    const { width, height } = this.place.getBoundingClientRect();
    const { sides } = this.second;
    const across = ((x / width) * sides) % 1;
    return this.session?.scene.pick(sightLine(this.camera.now, across * 2 - 1, 1 - (y / height) * 2, width / sides / height));
  }

  /** Where a point of world space is seen, CSS pixels from the canvas' top left. */
  placeOf(position: readonly number[]): { readonly x: number; readonly y: number } | undefined {
    const { width, height } = this.place.getBoundingClientRect();
    const { sides } = this.second;
    const seen = placeInPicture(this.camera.now, position, width / sides / height);
    return seen.depth > 0.01 ? { x: ((seen.x + 1) / 2) * (width / sides), y: ((1 - seen.y) / 2) * height } : undefined;
  }

  // Values of outlets

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
  async probe(x: number, y: number): Promise<ProbedOutlets | undefined> {
    const { session } = this;
    if (!session) return undefined;
    const { width, height } = this.place.getBoundingClientRect();
    const { sides } = this.second;
    const [size, css] = [this.second.sizeOf(this.size), this.second.sizeOf(this.cssSize)];
    const pixel = { x: (((x / width) * sides) % 1) * size.width, y: (y / height) * size.height };
    return whileThere(this.outlets.probe(session.renderer, (surface) => session.picture(this.sightIn(session), surface), pixel, size, css));
  }

  /** Least and largest value of an outlet on what is seen. */
  async range(wish: Pick<LensWish, 'outlet' | 'component'>): Promise<{ low: number; high: number } | undefined> {
    const { session } = this;
    return session && whileThere(this.outlets.range(session.renderer, (surface) => session.picture(this.sightIn(session), surface), wish));
  }

  /** Small pictures of outlets on a sphere under the rig's lights; `side` in pixels. */
  async previews(wishes: readonly PreviewWish[], side: number): Promise<PreviewAtlas | undefined> {
    const { session } = this;
    if (!session) return undefined;
    const light = { camera: PREVIEW_CAMERA, rig: session.rig, ...this.clocks.now };
    return whileThere(this.outlets.previews(session.renderer, light, session.previewMesh, wishes, side));
  }

  /** What small pictures are made of besides their program: as long as it is the same, they are. */
  get previewedState(): readonly unknown[] {
    const { seconds, lightSeconds } = this.clocks.now;
    return [this.surfaces.wornAs(this.bench)?.material, this.rig, seconds, lightSeconds];
  }

  // Pictures that are kept

  /**
   * The picture as it is now, antialiased, PNG; as large as the Stage unless another size is wanted. Lines are as wide in
   * it as on the Stage. Nothing when it was given up.
   */
  async still(wish: StillWish = { size: this.size }): Promise<Blob | undefined> {
    return this.loop.between(async () => {
      const { session, cssSize } = this;
      const { width, height } = wish.size;
      const css = { width: (cssSize.height * width) / height, height: cssSize.height };
      return session && whileThere(session.still(session.picture(this.sightIn(session)), wish, css));
    });
  }

  /** Has what measures drawn between two pictures; nothing where there is no device. */
  measure<T>(work: (measured: Measured) => Promise<T>): Promise<T | undefined> {
    return this.loop.between(async () => {
      const { session, set, size, cssSize } = this;
      if (!session || !set) return undefined;
      return whileThere(work({ session, set, picture: () => session.picture(this.sightIn(session)), size, cssSize }));
    });
  }

  /** Pixels of the picture that the Stage shows. */
  get pictureSize(): PictureSize {
    return this.size;
  }

  /**
   * A picture of the present state for the Library, PNG; none while something that it shows is on its way.
   *
   * @param whole of the set instead of what wears the material on the Bench
   */
  async thumbnail(whole = false): Promise<Blob | undefined> {
    return this.loop.between(async () => {
      const { session } = this;
      const isReady = session && this.surfaces.has(this.bench) && this.complete;
      return isReady ? whileThere(session.thumbnail(this.clocks.now, whole)) : undefined;
    });
  }

  // Drawing

  private advance(elapsed: number): { moved: boolean; runs: boolean } | undefined {
    const scene = this.session?.scene;
    if (!scene) return undefined;
    const turned = this.camera.advance(elapsed);
    const pointed = scene.pointing;
    if (pointed) scene.advancePointer(elapsed);
    const runs = this.clocks.advance(elapsed, { meshes: scene.moves, lights: this.rig !== undefined && lightsMove(this.rig) });
    return { moved: turned || pointed, runs };
  }

  private async paint(small: boolean): Promise<number | undefined> {
    const { session, pace, second, size, cssSize } = this;
    const { canvas } = this.devices;
    if (!session || !canvas) return undefined;
    const { device, renderer } = session;
    const scale = Math.min(small ? this.scale.current : 1, pace.scale);
    const started = performance.now();
    const pictures = this.picturesOf(session);
    const measures = !small && !pictures[0]?.lens;
    const painting = { device, renderer, canvas, second, size, cssSize, scale, measures };
    const painted = await whileThere(paintPictures(pictures, painting));
    if (!painted) return undefined;
    const { costs, clipped = this.state.value.clipped } = painted;
    const cost = performance.now() - started;
    if (small && pace.scale === 1) this.scale.learn(scale, cost);
    const worn = this.surfaces.wornAs(this.bench)?.surface;
    if (!small && this.gauges.learn(worn, cost)) this.moved();
    if (!small && this.complete && this.gauges.doubts(worn)) void this.reconsiderPace();
    const two = pictures.length === 2;
    const difference = two && !small ? await whileThere(second.difference()) : undefined;
    // The context was lost meanwhile, and another device draws now.
    if (session !== this.session) return undefined;
    // What a picture costs is told by its second drawing; the first one also makes the driver ready.
    if (two && !small && this.rested++ === 0) this.loop.request();
    const compared = two ? (small ? this.state.value.compared : { costs, difference }) : undefined;
    this.seen = { compared, clipped, tooSlow: pace.scale < 1 ? pace.milliseconds : undefined };
    return cost;
  }

  private painted(rests: boolean): void {
    const { session, rig } = this;
    if (!session || !rig) return;
    this.patch({
      ...this.seen,
      compiledPrograms: session.device.statistics.compiledPrograms,
      pictures: this.state.value.pictures + 1,
      // A picture that was drawn small while its program is gauged once more is not the last word.
      sharp: rests && !this.gauges.isTaking(this.surfaces.wornAs(this.bench)?.surface),
      complete: this.complete,
      awaits: this.awaits,
      moves: session.scene.moves,
      lightsMove: lightsMove(rig),
      benchIsWorn: session.scene.benchIsWorn,
    });
    if (this.surfaces.has(this.bench) || !session.scene.benchIsWorn) this.devices.settle();
    this.drawn.next();
  }

  /** What is drawn: one picture, or two of the same set. */
  private picturesOf(session: StageSession): Picture[] {
    const sight = this.sightIn(session);
    const { ready } = this.second;
    const other = ready && pictureOf(ready.scene, ready.rig, { ...sight, lens: undefined });
    return [session.picture(sight), ...(other ? [other] : [])];
  }

  private sightIn({ scene }: StageSession): Sight {
    const { now } = this.camera;
    return { camera: now, clocks: this.clocks.now, inspection: measured(this.inspection, scene, now), lens: this.outlets.lens };
  }

  /** Width over height of one picture. */
  private get aspect(): number {
    const { width, height } = this.second.sizeOf(this.size);
    return width / height;
  }

  private get cssSize(): PictureSize {
    const ratio = this.size.width / Math.max(this.place.clientWidth, 1);
    return { width: this.size.width / ratio, height: this.size.height / ratio };
  }

  private get complete(): boolean {
    return this.session !== undefined && this.awaits.length === 0;
  }

  private get awaits(): readonly Awaited[] {
    return awaitedBy(this.session?.renderer, this.surfaces.prepares);
  }

  // Programs

  private prepare(
    id: string,
    compiled: EmittedMaterial,
    material: Material,
    lit: Iterable<LitProgram>,
  ): Promise<MaterialPipelines> | undefined {
    const { session } = this;
    return session?.prepare(compiled, this.sightIn(session), material, lit).then(async (surface) => {
      if (id === this.bench) await this.gauges.take(surface, () => this.gauge(surface));
      return surface;
    });
  }

  /** Draws what stands there with a new program, small and out of sight, before it takes the old one's place. */
  private gauge(surface: MaterialPipelines): Promise<FrameCost | undefined> | undefined {
    const { session, size } = this;
    if (!session || size.width <= 2) return undefined;
    return whileThere(session.gauge(() => session.picture(this.sightIn(session), surface), size));
  }

  /** A program that was slow on what stood there before may be quick on what stands there now; one from beside the Bench is new. */
  private async reconsiderPace(): Promise<void> {
    const surface = this.surfaces.wornAs(this.bench)?.surface;
    if (!surface || (this.gauges.knows(surface) && this.pace.scale === 1)) return;
    await this.gauges.take(surface, () => this.gauge(surface));
    this.moved();
  }

  /** The pace of the program on the Bench. */
  private get pace(): FrameCost {
    return this.gauges.paceOf(this.surfaces.wornAs(this.bench)?.surface);
  }

  /** What a picture needs is said by the light it stands in. */
  private light(): void {
    const rigs = [this.rig, this.second.rig].filter((rig) => rig !== undefined);
    void this.surfaces.light(new Set(rigs.map(litProgram)));
  }

  private standSecond(): void {
    const { session, set } = this;
    if (!session || !set) return;
    this.second.stand(session.device, session.renderer, set, this.bench, this.surfaces);
    this.moved();
  }

  /** The material of the second picture stands there in the place of the one on the Bench. */
  private wear(compiled: string): void {
    const id = materialOf(compiled);
    const worn = this.surfaces.wornAs(id);
    if (id !== OTHER) this.session?.scene.assign(id, worn);
    this.second.wear(id, worn);
    this.tellLacks();
    if (id === this.bench && this.surfaces.has(id)) this.patch({ hasSurface: true });
    this.moved();
  }

  private refuse(id: string, refusal: StageState['refusal']): void {
    if (materialOf(id) === this.bench) this.patch({ refusal });
    this.moved();
  }

  // What is told

  private tellSet(): void {
    const { session } = this;
    if (!session) return;
    const { scene } = session;
    this.patch({ formulas: scene.problems, benchIsWorn: scene.benchIsWorn, awaitsMeshes: scene.awaitsMeshes });
    if (this.framed) return;
    this.framed = true;
    this.frameUntouched();
  }

  private meshArrived(): void {
    const scene = this.session?.scene;
    scene?.refresh();
    this.second.refresh();
    if (scene) this.patch({ formulas: scene.problems, awaitsMeshes: scene.awaitsMeshes });
    this.frameUntouched();
    this.moved();
  }

  private tellLacks(): void {
    const lacks = this.surfaces.missed(this.session?.renderer.images.lacks ?? []);
    if (lacks.length + this.state.value.lacks.length > 0) this.patch({ lacks });
  }

  private moved(): void {
    this.rested = 0;
    this.loop.moved();
  }

  private patch(change: Partial<StageState>): void {
    this.state.next({ ...this.state.value, ...change });
  }
}

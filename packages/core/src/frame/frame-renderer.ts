import type { LightRig } from '@brelvin/contract';
import { LruCache } from '../cache/lru-cache';
import type { EmittedMaterial } from '../emit/emitted-material';
import type { LitProgram } from '../scene/lights';
import type { FrameGlobals } from '../compile/material-values';
import type { MaterialSource } from '../document/material';
import type { Device, DeviceTexture, DrawCall, PassFormats } from '../device/device';
import { shadowViews, type ShadowView } from '../scene/shadow-views';
import type { FrameItem } from './frame-item';
import type { EdgePicture } from './edge-passes';
import { EnvironmentBank } from './environment/environment-bank';
import { environmentGlobals } from './environment/environment-globals';
import { FrameBlocks } from './frame-blocks';
import { framePrograms, type FramePrograms } from './frame-programs';
import { GroupCache } from './group-cache';
import { outletVariant } from '../compile/compile-outlets';
import { OutletPasses, type OutletCell, type OutletScene, type ProbedPoint } from './outlet-passes';
import { MeshBank } from './mesh-bank';
import { isWireView, showsSteps, takesApart, WHOLE_PICTURE, type Inspection } from './inspection';
import { ItemDrawings, type DrawnBy, type PlainVariant } from './item-drawings';
import { LaterPasses } from './later-passes';
import { MeshBuffers } from './mesh-buffers';
import { FieldPasses } from './field-passes';
import { groundOf } from './ground';
import { LampBodies } from './lamp-bodies';
import { hullItems, lineGroups, markOutlines } from './outlines';
import { environmentNeed, isPlain, type Drawing, type Picture } from './picture';
import { PictureContext, type PictureResources, type Surroundings } from './picture-context';
import { Overview } from './overview';
import { wholePart, type PicturePart } from './picture-part';
import { MaterialPipelines } from './material-pipelines';
import { ImageBank } from './image-bank';
import { SHADOW_FORMATS, type CasterCalls } from './shadows';
import type { SampleCount } from './program-pipelines';
import { isDrawnLater } from './see-through';
import { FAR_AWAY, seenRecord, type SeenRecord } from './seen-record';
import { SurfaceDrawings } from './surface-drawings';
import { DISTANCE_FORMATS, PICTURE_FORMATS, RenderTargets, type BehindTargets, type DistanceTargets } from './targets';
import { frameGlobals } from './uniforms';
import type { PictureSize } from './picture-part';
import type { MeshData } from '../mesh/mesh';

/** Behind a property of the surface: neither black nor white, which would say something. */
const PLAIN_GROUND = [0.03, 0.03, 0.03];

const WARM_UP_SIZE: PictureSize = { width: 64, height: 48 };

/** Draws whole pictures: opaque meshes, then the view transform. A picture is a function of what is handed in. */
export class FrameRenderer {
  /** At most a few sizes are alive: full, small while dragging, warm-up, thumbnail. */
  private readonly targets = new LruCache<RenderTargets>(MOST_TARGETS, (gone) => this.dropTargets(gone));
  /** The images that materials read. */
  readonly images: ImageBank;
  /** Meshes that come from files. */
  readonly meshes = new MeshBank();
  /** What is all around. */
  readonly environments: EnvironmentBank;
  private readonly blocks: FrameBlocks;
  private readonly resources: PictureResources;
  private readonly outlets: OutletPasses;
  private readonly drawings: ItemDrawings;
  private readonly surfaces: SurfaceDrawings;
  private readonly later: LaterPasses;
  private readonly bodies: LampBodies;
  private readonly fields: FieldPasses;
  /** What was last drawn behind something that looked: values are seen through glass as the last picture was. */
  private lastBehind?: BehindTargets;
  /** What was drawn last. */
  private scene?: DeviceTexture;

  private readonly programs: FramePrograms;

  constructor(private readonly device: Device) {
    const programs = (this.programs = framePrograms(device));
    this.images = new ImageBank(device);
    this.environments = new EnvironmentBank(programs.environments);
    this.blocks = new FrameBlocks(device);
    this.outlets = new OutletPasses(device);
    this.drawings = new ItemDrawings(programs.notReady);
    this.surfaces = new SurfaceDrawings(this.drawings, programs);
    this.later = new LaterPasses(device, programs, this.surfaces);
    this.bodies = new LampBodies(device);
    this.fields = new FieldPasses(device, this.drawings);
    this.resources = picturesShare(device, programs, this.blocks, this.images);
  }

  /** Whether an image, a mesh or an environment that a picture asked for is still on its way. */
  get awaits(): boolean {
    return this.images.awaits || this.meshes.awaits || this.environments.awaits;
  }

  uploadMesh(mesh: MeshData): MeshBuffers {
    return new MeshBuffers(this.device, mesh, this.meshes);
  }

  /**
   * Brings a program onto the device and draws it once, small and out of sight, so that its first real drawing
   * does not stall.
   *
   * @param lit the programs that pictures need, of those that draw it lit; see `MaterialPipelines.create`
   * @throws ProgramRefused
   */
  async prepare(
    compiled: EmittedMaterial,
    picture: Omit<Picture, 'items'>,
    mesh: MeshBuffers,
    material: MaterialSource,
    lit?: Iterable<LitProgram>,
  ): Promise<MaterialPipelines> {
    const surface = await MaterialPipelines.create(this.device, compiled, lit);
    await this.warmUp({ ...picture, items: [{ mesh, surface, material }] });
    return surface;
  }

  /** Draws once, small and out of sight, as pictures are drawn: with four samples. */
  async warmUp(picture: Picture): Promise<void> {
    await this.device.makeReady(() => this.drawScene(picture, WARM_UP_SIZE, 4));
  }

  draw(picture: Picture, drawing: Drawing): void {
    const { size, samples, target, targetSize, part } = drawing;
    const scene = this.drawScene(picture, size, samples, drawing.cssSize ?? targetSize, part);
    if (!part) this.scene = scene;
    const plain = isPlain(picture);
    const rig = plain ? undefined : picture.rig;
    const spread = part ? part.overview.spread : this.spreadOf(scene, rig, drawing.cssSize ?? targetSize);
    const linear = drawing.encoding === 'linear' && !plain;
    const isWhole = samples > 1 && size.width === targetSize.width && size.height === targetSize.height;
    const between = isWhole && rig && !linear ? this.targetsFor(size, samples).seen : undefined;
    const empty = rig?.transparent ? (drawing.empty ?? 'squares') : 'none';
    this.programs.view.draw(scene, target, { rig, spread, linear, empty, between, part: part ?? wholePart(targetSize) }, targetSize);
  }

  /** What parts of a large picture have in common, found at this size; to be destroyed when they are drawn. */
  overview(picture: Picture, size: PictureSize, cssSize: PictureSize): Overview {
    const overview = new Overview(this.device);
    const scene = this.drawScene(picture, size, 4, cssSize, undefined, overview);
    overview.spread = isPlain(picture) ? undefined : this.spreadOf(scene, picture.rig, cssSize);
    return overview;
  }

  private spreadOf(scene: DeviceTexture, rig: LightRig | undefined, { height }: PictureSize): DeviceTexture | undefined {
    return rig && rig.bloom.strength > 0 ? this.programs.bloom.draw(scene, rig, scene.height / Math.max(height, 1)) : undefined;
  }

  /** Colours of the picture that was drawn last, exposed, before its tone curve; small, see `SmallerCopy`. */
  async measureLast(size: PictureSize, { exposure }: LightRig): Promise<Float32Array<ArrayBuffer>> {
    return this.scene ? this.programs.smaller.read(this.scene, size, 2 ** exposure) : new Float32Array();
  }

  /** Scene-linear colours of a picture before the view transform: rows from the top, four numbers a pixel. */
  measure(picture: Picture, size: PictureSize, samples: SampleCount = 1, part?: Drawing['part']): Promise<Float32Array<ArrayBuffer>> {
    return this.device.readFloats(this.drawScene(picture, size, samples, part?.whole ?? size, part));
  }

  /**
   * Scene-linear colour of a picture, in a texture of the renderer's.
   *
   * @param part of a larger picture, of which it is; what its parts have in common is not drawn again
   * @param filled with what the parts of a larger picture have in common
   */
  private drawScene(
    picture: Picture,
    size: PictureSize,
    samples: SampleCount,
    cssSize = size,
    part?: Drawing['part'],
    filled?: Overview,
  ): DeviceTexture {
    const targets = this.targetsFor(size, samples);
    const { camera, rig, items, inspection = WHOLE_PICTURE } = picture;
    const shadows = picture.casters ? shadowViews(rig, picture.lightSeconds ?? picture.seconds, picture.casters.ball) : [];
    const around = this.environments.find(rig.environment, environmentNeed(picture));
    const behind = picture.lens && this.lastBehind;
    const context = this.begin(frameGlobals(camera, rig, size, picture, shadows, cssSize, part), rig, { around, behind }, { items, size });
    this.drawShadows(picture, shadows, context);
    this.blocks.inspectBy(inspection);
    if (picture.lens) this.outlets.look(picture.lens);
    const plain = isPlain(picture);
    const whole = !plain && inspection.view !== 'wires';
    const surfaces = showsSteps(inspection) ? items.filter(({ field }) => !field) : items;
    const [first, later] = [surfaces.filter((item) => !isDrawnLater(item)), surfaces.filter(isDrawnLater)];
    const looks = !picture.lens && later.some(({ surface }) => surface?.compiled.readsSceneColour);
    const occlusion = whole || inspection.view === 'occlusion' ? rig.occlusion : undefined;
    const body = whole ? this.bodies.item(rig, picture.lightSeconds ?? picture.seconds) : undefined;
    if ((looks || occlusion) && !part) this.drawDistances(targets.far, body ? [...first, body] : first, context);
    const near = part ? part.overview.near : occlusion && this.programs.near.draw(targets.far.distance, occlusion, camera, size);
    if (filled) filled.near = near;
    const shaded = shadows.length > 0 ? 'shadowed' : undefined;
    const untaken = near ? 'occluded' : shaded;
    const variant = takesApart(inspection) ? 'inspect' : untaken;
    // A view of a property, or of wires alone, has no lines round it.
    const lined = whole ? items : [];
    const groups = lineGroups(lined);
    if (groups.length > 0 || lined.some(({ material }) => material?.outline)) markOutlines(items, groups);
    const opened = { picture, first, lined, body, part: part ?? wholePart(size), context: context.seeing({ near }) };
    this.open(targets, opened, variant, this.viewCalls(inspection, items, opened.context, targets.formats));
    if (later.length > 0) {
      // However a picture is taken apart, what is seen through glass is whole.
      const apart = variant === 'inspect' && !plain && !part && later.some(({ surface }) => surface?.compiled.transmits);
      const untouched = apart ? this.targetsFor(size, samples, 'whole') : undefined;
      if (untouched) this.open(untouched, opened, untaken);
      if (looks && !part && !filled) this.lastBehind = targets.behind;
      // What is occluded lies behind them.
      const own = variant === 'inspect' ? variant : shaded;
      const overview = part ? { fill: false, of: part.overview } : filled && { fill: true, of: filled };
      this.later.draw({ targets, whole: untouched, picture, looks, items: later, context, overview, variant: own, untaken: shaded });
    }
    this.drawThrough(targets, hullItems(lined, true), context);
    targets.resolve();
    const drawEdge: EdgePicture['drawCall'] = (item, program) => this.drawings.call(item, context, PICTURE_FORMATS[1], program);
    return this.programs.edges.draw(targets.resolved, {
      items,
      groups,
      camera,
      size,
      cssSize,
      whole: part?.whole ?? size,
      samples,
      drawCall: drawEdge,
    });
  }

  /** Writes the numbers of a picture. */
  private begin(plain: FrameGlobals, rig: LightRig, seen: Surroundings, { items, size }: StandingItems): PictureContext {
    const globals = new Map([...plain, ...environmentGlobals(rig, this.environments.find(rig.environment)?.harmonics)]);
    this.blocks.write(globals);
    const context = new PictureContext(this.resources, globals, { pass: this.outlets.group, ...seen });
    return context.seeing({ record: this.fields.trace(items, size, context) });
  }

  private drawShadows({ items, casters }: Picture, shadows: readonly ShadowView[], context: PictureContext): void {
    const calls: CasterCalls = (pass) => {
      const lit = context.seeing({ pass });
      return (item) => {
        const traced = item.field?.caster;
        if (!traced) return this.drawings.call(item, lit, SHADOW_FORMATS, 'caster');
        return this.drawings.fieldCall(item, lit.bindings(traced.layout, item), traced, SHADOW_FORMATS);
      };
    };
    this.programs.shadows.draw(shadows, items, calls, casters?.standing);
  }

  /** What is seen at each pixel of a picture, one thing and not a mean of several; see `SeenRecord`. */
  async record({ items, camera, rig, ...clocks }: Picture, size: PictureSize, part = wholePart(size)): Promise<SeenRecord> {
    const context = this.begin(frameGlobals(camera, rig, size, clocks, [], part.whole, part), rig, {}, { items, size });
    this.blocks.inspectBy(WHOLE_PICTURE);
    const { far } = this.targetsFor(size, 1);
    this.drawDistances(far, items, context);
    const distances = await this.device.readFloats(far.distance);
    markOutlines(items, []);
    const { surfaces } = this.programs.edges;
    const draws = items.map((item) =>
      this.drawings.call(item, context, DISTANCE_FORMATS, item.surface?.compiled.shaped ? 'edges' : surfaces),
    );
    this.device.runPass({ label: 'parts', colour: far.distance, depth: far.depth, clear: [0, 0, 0, 0], draws });
    return seenRecord(camera, distances, await this.device.readFloats(far.distance));
  }

  /** What is behind everything, and all that hides it. */
  private open(
    { colour, depth, formats }: RenderTargets,
    { picture, first, lined, body, part, context }: OpenedScene,
    by: PlainVariant | undefined,
    more: readonly DrawCall[] = [],
  ): void {
    const { rig, camera } = picture;
    const plain = isPlain(picture);
    const { ground, others } = plain || picture.inspection?.view === 'wires' ? { ground: [], others: first } : groundOf(first);
    const around = { images: this.images, environment: context.around, camera };
    const backdrop = plain ? [] : this.programs.backdrop.drawCalls(rig, around, part, formats, ground.length === 0);
    const [red = 0, green = 0, blue = 0] = plain ? PLAIN_GROUND : rig.background;
    const empty = backdrop.length > 0 || ground.length > 0 || (rig.transparent && !plain);
    this.device.runPass({
      label: 'surfaces',
      colour,
      depth,
      clear: empty ? [0, 0, 0, 0] : [red, green, blue, 1],
      draws: [
        ...this.surfaces.groundCalls(picture, ground, context, formats, by),
        ...backdrop,
        ...this.surfaces.calls(picture, others, context, formats, by),
        ...(body ? [this.drawings.call(body, context, formats, this.programs.lampBody)] : []),
        ...hullItems(lined, false).flatMap((item) => this.drawings.hullCalls(item, context, formats)),
        ...more,
      ],
    });
  }

  /** What a special view draws besides surfaces. */
  private viewCalls(inspection: Inspection, items: readonly FrameItem[], context: PictureContext, into: PassFormats): DrawCall[] {
    if (showsSteps(inspection)) return this.fields.stepCalls(items, context, into);
    if (!isWireView(inspection.view)) return [];
    return items.filter(({ field }) => !field).map((item) => this.programs.wires.drawCall(item, this.drawings, context, into));
  }

  /** How far what hides others is, and where it faces. */
  private drawDistances({ distance, depth }: DistanceTargets, items: readonly FrameItem[], context: PictureContext): void {
    const by = ({ surface }: FrameItem): DrawnBy => (surface?.has('distance') ? 'distance' : this.programs.distance);
    const draws = items.map((item) => this.drawings.call(item, context, DISTANCE_FORMATS, by(item)));
    this.device.runPass({ label: 'distances', colour: distance, depth, clear: [FAR_AWAY, 0, 0, 0], draws });
  }

  /** Grown meshes that are only hidden by what they belong to, whatever stands in front. */
  private drawThrough(targets: RenderTargets, items: readonly FrameItem[], context: PictureContext): void {
    if (items.length === 0) return;
    const { colour, ownDepth, formats, samples } = targets;
    const depthAlone = { depth: true, samples };
    const own = items.map((item) =>
      this.drawings.call(item, context, depthAlone, item.surface?.compiled.shaped ? undefined : this.programs.notReady),
    );
    this.device.runPass({ label: 'outlines', depth: ownDepth, clear: [0, 0, 0, 0], draws: own });
    const hulls = items.flatMap((item) => this.drawings.hullCalls(item, context, formats));
    this.device.runPass({ label: 'outlines', colour, depth: ownDepth, draws: hulls });
  }

  /**
   * Small square pictures of outlets; see `OutletPasses.draw`.
   *
   * @param item with the program of outlets as its surface
   */
  drawOutlets(
    picture: Omit<Picture, 'items'>,
    item: FrameItem,
    cells: readonly OutletCell[],
    side: number,
  ): Promise<Uint8Array<ArrayBuffer>> {
    return this.outlets.draw(item, cells, side, this.outletScene(picture));
  }

  /** Values of outlets at a pixel of a picture of this size; see `OutletPasses.probe`. */
  probe(
    picture: Picture,
    surface: MaterialPipelines,
    outlets: readonly number[],
    pixel: { readonly x: number; readonly y: number },
    size: PictureSize,
    cssSize = size,
  ): Promise<ProbedPoint | undefined> {
    return this.outlets.probe(picture.items, surface, outlets, pixel, size, this.outletScene(picture, cssSize));
  }

  /** The values of an outlet all over a small picture; see `OutletPasses.spread`. */
  spread(picture: Picture, surface: MaterialPipelines, outlet: number, size: PictureSize): Promise<(readonly number[])[]> {
    return this.outlets.spread(picture.items, surface, outlet, size, this.outletScene(picture));
  }

  private outletScene(picture: Omit<Picture, 'items'> & { readonly items?: readonly FrameItem[] }, cssSize?: PictureSize): OutletScene {
    const { camera, rig, casters, seconds, lightSeconds = seconds, items = [] } = picture;
    const shadows = casters ? shadowViews(rig, lightSeconds, casters.ball) : [];
    const seen = { around: this.environments.find(rig.environment), behind: this.lastBehind };
    return {
      frame: (size, corner) =>
        this.begin(
          frameGlobals(camera, rig, size, { seconds, lightSeconds }, shadows, cssSize ?? size, wholePart(size), corner),
          rig,
          seen,
          { items, size },
        ),
      drawCall: (item, context, into, outlet) =>
        this.drawings.call(item, context, into, outlet === undefined ? this.programs.quiet : outletVariant(outlet)),
    };
  }

  private targetsFor(size: PictureSize, samples: SampleCount, use = ''): RenderTargets {
    const key = `${size.width}x${size.height}x${samples}${use}`;
    const found = this.targets.get(key);
    if (found) return found;
    const made = new RenderTargets(this.device, size, samples);
    this.targets.set(key, made);
    return made;
  }

  private dropTargets(gone: RenderTargets): void {
    if (gone.has(this.lastBehind)) this.lastBehind = undefined;
    gone.destroy();
  }
}

const MOST_TARGETS = 6;

/** What stands in a picture, and how large that is. */
interface StandingItems {
  readonly items: readonly FrameItem[];
  readonly size: PictureSize;
}

/** The part of a picture that hides what is behind it. */
interface OpenedScene {
  readonly picture: Picture;
  readonly first: readonly FrameItem[];
  /** What may have outlines. */
  readonly lined: readonly FrameItem[];
  /** Of lamps. */
  readonly body?: FrameItem;
  readonly part: PicturePart;
  readonly context: PictureContext;
}

function picturesShare(device: Device, programs: FramePrograms, blocks: FrameBlocks, images: ImageBank): PictureResources {
  let nothingBehind: BehindTargets | undefined;
  return {
    groups: new GroupCache(device),
    blocks: blocks.buffers,
    images,
    shadowAtlas: programs.shadows.atlas,
    albedos: () => programs.environments.albedos,
    nothing: {
      near: programs.near.nothing,
      around: () => programs.environments.nothing,
      behind: () => (nothingBehind ??= new RenderTargets(device, { width: 1, height: 1 }, 1).behind),
    },
  };
}

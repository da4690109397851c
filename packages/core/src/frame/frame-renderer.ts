import { libraryProgram } from '../catalogue/library';
import type { EmittedMaterial } from '../emit/emitted-material';
import { plainFragmentModule, plainVertexModule, type SurfaceVariant } from '../compile/surface-programs';
import type { FrameGlobals } from '../compile/material-values';
import type { LightRig } from '../document/light-rig';
import type { MaterialSource } from '../document/material';
import type { Device, DeviceBuffer, DeviceTexture, DrawCall } from '../device/device';
import type { BlockLayout } from '../ir/layout';
import type { OrbitCamera } from '../scene/camera';
import { shadowViews, type Ball } from '../scene/shadow-views';
import { Backdrop } from './backdrop';
import { BloomPasses } from './bloom';
import type { FrameItem } from './frame-item';
import { EdgePasses, type EdgePicture } from './edge-passes';
import { EnvironmentBank } from './environment/environment-bank';
import { environmentGlobals } from './environment/environment-globals';
import { EnvironmentPasses, type EnvironmentNeed } from './environment/environment-passes';
import { FullScreen } from './full-screen';
import type { Lens } from './lens';
import { OutletPasses, type OutletCell, type OutletScene, type ProbedPoint } from './outlet-passes';
import { MeshBank } from './mesh-bank';
import { inspectGlobals, isWireView, showsProperty, takesApart, WHOLE_PICTURE, type Inspection } from './inspection';
import { MeshBuffers } from './mesh-buffers';
import { groundOf, groundPrograms, type GroundPrograms } from './ground';
import { NearOcclusionPasses } from './near-occlusion';
import { hullItems, lineGroups, markOutlines } from './outlines';
import { Surface } from './surface';
import { ImageBank } from './image-bank';
import { ownProgram } from './own-program';
import { ShadowPasses, type StandingState } from './shadows';
import { SurfacePipelines, type SampleCount } from './surface-pipelines';
import { layersOf } from './layers';
import { SmallerCopy } from './smaller-copy';
import { Gathering } from './gathering';
import { isDrawnLater, isGathered } from './see-through';
import { RenderTargets, type BehindTargets, type DistanceTargets } from './targets';
import { UniformBuffer } from './uniform-buffer';
import { ViewTransform } from './view-transform';
import { WireProgram } from './wires';
import { frameGlobals, libraryBlock, writeBlock, type PictureSize, type StageClocks } from './uniforms';
import type { MeshData } from '../mesh/mesh';

export interface Picture extends StageClocks {
  readonly items: readonly FrameItem[];
  readonly camera: OrbitCamera;
  readonly rig: LightRig;
  /** A ball round what throws shadows, and its present state; without one nothing does. */
  readonly casters?: { readonly ball: Ball; readonly standing?: StandingState };
  /** How it is taken apart; whole when absent. */
  readonly inspection?: Inspection;
  /** The value of an outlet instead of the picture. */
  readonly lens?: Lens;
}

export interface Drawing {
  /** Pixels to draw; the target may be larger, the picture is then stretched to it. */
  readonly size: PictureSize;
  readonly samples: SampleCount;
  readonly target: 'canvas' | DeviceTexture;
  readonly targetSize: PictureSize;
  /** The target in CSS pixels, for widths that are given in them; its own pixels when absent. */
  readonly cssSize?: PictureSize;
  /** sRGB when absent; linear for measurements. */
  readonly encoding?: 'linear';
  /** Where a rig has nothing behind the meshes: alpha of the target, or squares when absent. */
  readonly empty?: 'alpha';
}

interface FramePrograms {
  readonly view: ViewTransform;
  readonly backdrop: Backdrop;
  readonly bloom: BloomPasses;
  readonly environments: EnvironmentPasses;
  readonly gathering: Gathering;
  readonly wires: WireProgram;
  readonly shadows: ShadowPasses;
  readonly near: NearOcclusionPasses;
  readonly inverse: FullScreen;
  readonly ground: GroundPrograms;
  readonly edges: EdgePasses;
  readonly smaller: SmallerCopy;
  readonly notReady: SurfacePipelines;
  /** What stands beside something that is looked at. */
  readonly quiet: SurfacePipelines;
  /** How far away what is drawn first is. */
  readonly distance: SurfacePipelines;
}

/** What is drawn after all that hides what is behind it, and into what. */
interface LaterScene {
  readonly targets: RenderTargets;
  /** The same picture whole, where `targets` hold it taken apart. */
  readonly whole?: RenderTargets;
  readonly picture: Picture;
  /** Whether any of them looks at what is behind it. */
  readonly looks: boolean;
  readonly later: readonly FrameItem[];
  readonly globals: FrameGlobals;
  readonly samples: SampleCount;
  readonly variant?: Exclude<SurfaceVariant, 'hull'>;
  /** The variant of the whole picture. */
  readonly untaken?: Exclude<SurfaceVariant, 'hull'>;
}

type FrameBlocks = Readonly<Record<'frame' | 'lights' | 'inspect', { readonly layout: BlockLayout; readonly buffer: UniformBuffer }>>;

/** Behind a property of the surface: neither black nor white, which would say something. */
const PLAIN_GROUND = [0.03, 0.03, 0.03];

const WARM_UP_SIZE: PictureSize = { width: 64, height: 48 };

/** Draws whole pictures: opaque meshes, then the view transform. A picture is a function of what is handed in. */
export class FrameRenderer {
  private readonly targets = new Map<string, RenderTargets>();
  /** The images that materials read. */
  readonly images: ImageBank;
  /** Meshes that come from files. */
  readonly meshes = new MeshBank();
  /** What is all around. */
  readonly environments: EnvironmentBank;
  private readonly inverseValues: UniformBuffer;
  private readonly outlets: OutletPasses;
  /** What was last drawn behind something that looked. */
  private behind?: BehindTargets;
  /** What near surfaces leave of light from all around, in the present picture. */
  private near?: DeviceTexture;
  /** What was drawn last. */
  private scene?: DeviceTexture;
  private nothing?: BehindTargets;

  private constructor(
    private readonly device: Device,
    private readonly programs: FramePrograms,
    private readonly blocks: FrameBlocks,
  ) {
    this.images = new ImageBank(device);
    this.environments = new EnvironmentBank(programs.environments);
    this.inverseValues = programs.inverse.createValues();
    this.outlets = new OutletPasses(device);
  }

  static async create(device: Device): Promise<FrameRenderer> {
    const plain = (name: string, fragment = libraryProgram(`${name}.frag`)): Promise<SurfacePipelines> =>
      SurfacePipelines.create(device, name, ownProgram(device, plainVertexModule('surface.vert'), fragment));
    const programs = {
      view: await ViewTransform.create(device),
      backdrop: await Backdrop.create(device),
      bloom: await BloomPasses.create(device),
      environments: await EnvironmentPasses.create(device),
      gathering: await Gathering.create(device),
      wires: await WireProgram.create(device),
      shadows: await ShadowPasses.create(device),
      near: await NearOcclusionPasses.create(device),
      inverse: await FullScreen.create(device, 'scene_inverse', 'SceneInverse', [1], 'gather'),
      ground: await groundPrograms(device),
      edges: await EdgePasses.create(device),
      smaller: await SmallerCopy.create(device),
      notReady: await plain('not_ready'),
      quiet: await plain('quiet'),
      distance: await plain('scene_distance', plainFragmentModule('scene_distance.frag')),
    };
    const buffered = (layout: BlockLayout): FrameBlocks['frame'] => ({ layout, buffer: new UniformBuffer(device, layout.words) });
    return new FrameRenderer(device, programs, {
      frame: buffered(libraryBlock('Frame')),
      lights: buffered(libraryBlock('Lights')),
      inspect: buffered(libraryBlock('Inspect')),
    });
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
   * @throws ProgramRefused
   */
  async prepare(compiled: EmittedMaterial, picture: Omit<Picture, 'items'>, mesh: MeshBuffers, material: MaterialSource): Promise<Surface> {
    const surface = await Surface.create(this.device, compiled);
    await this.warmUp({ ...picture, items: [{ mesh, surface, material }] });
    return surface;
  }

  /** Draws once, small and out of sight, as pictures are drawn: with four samples. */
  async warmUp(picture: Picture): Promise<void> {
    this.drawScene(picture, WARM_UP_SIZE, 4);
    await this.device.finished();
  }

  draw(picture: Picture, drawing: Drawing): void {
    const scene = (this.scene = this.drawScene(picture, drawing.size, drawing.samples, drawing.cssSize ?? drawing.targetSize));
    const { size, samples, target, targetSize } = drawing;
    const plain = isPlain(picture);
    const rig = plain ? undefined : picture.rig;
    const spread = rig && rig.bloom.strength > 0 ? this.programs.bloom.draw(scene, rig) : undefined;
    const linear = drawing.encoding === 'linear' && !plain;
    const isWhole = samples > 1 && size.width === targetSize.width && size.height === targetSize.height;
    const between = isWhole && rig && !linear ? this.targetsFor(size, samples).seen : undefined;
    const empty = rig?.transparent ? (drawing.empty ?? 'squares') : 'none';
    this.programs.view.draw(scene, target, { rig, spread, linear, empty, between }, targetSize);
  }

  /** Colours of the picture that was drawn last, exposed, before its tone curve; small, see `SmallerCopy`. */
  async measureLast(size: PictureSize, { exposure }: LightRig): Promise<Float32Array<ArrayBuffer>> {
    return this.scene ? this.programs.smaller.read(this.scene, size, 2 ** exposure) : new Float32Array();
  }

  /** Scene-linear colours of a picture before the view transform: rows from the top, four numbers a pixel. */
  measure(picture: Picture, size: PictureSize, samples: SampleCount = 1): Promise<Float32Array<ArrayBuffer>> {
    return this.device.readFloats(this.drawScene(picture, size, samples));
  }

  /** Scene-linear colour of the opaque meshes over the background. */
  private drawScene(picture: Picture, size: PictureSize, samples: SampleCount, cssSize = size): DeviceTexture {
    const targets = this.targetsFor(size, samples);
    const { camera, rig, inspection = WHOLE_PICTURE } = picture;
    const shadows = picture.casters ? shadowViews(rig, picture.lightSeconds ?? picture.seconds, picture.casters.ball) : [];
    const environment = this.environments.find(rig.environment, environmentNeed(picture));
    const globals = this.uploadFrame(frameGlobals(camera, rig, size, picture, shadows, cssSize), rig);
    const drawOwn = (item: FrameItem, program: 'caster' | 'wires', count: SampleCount): DrawCall => ({
      ...this.drawCall(item, globals, count, program),
    });
    this.programs.shadows.draw(shadows, picture.items, (item, program) => drawOwn(item, program, 1), picture.casters?.standing);
    writeBlock(this.blocks.inspect.layout, inspectGlobals(inspection), this.blocks.inspect.buffer.words);
    this.blocks.inspect.buffer.upload();
    const plain = isPlain(picture);
    const whole = !plain && inspection.view !== 'wires';
    const [first, later] = [picture.items.filter((item) => !isDrawnLater(item)), picture.items.filter(isDrawnLater)];
    // A value is seen through glass as the last picture was.
    const looks = !picture.lens && later.some(({ surface }) => surface?.compiled.looksBehind);
    const near = whole || inspection.view === 'occlusion' ? rig.occlusion : undefined;
    if (looks || near) this.drawDistances(targets.far, first, globals);
    this.near = near && this.programs.near.draw(targets.far.distance, near, camera, size);
    const shaded = shadows.length > 0 ? 'shadowed' : undefined;
    const untaken = near ? 'occluded' : shaded;
    const variant = takesApart(inspection) ? 'inspect' : untaken;
    // A view of a property, or of wires alone, has no lines round it.
    if (picture.lens) this.outlets.look(picture.lens);
    const lined = whole ? picture.items : [];
    const groups = lineGroups(lined);
    if (groups.length > 0 || lined.some(({ material }) => material?.outline)) markOutlines(picture.items, groups);
    const hulls = (hidden: boolean): DrawCall[] => hullItems(lined, hidden).flatMap((item) => this.hullCalls(item, globals, samples));
    const { ground, others } = whole ? groundOf(first) : { ground: [], others: first };
    const open = ({ colour, depth }: RenderTargets, by: LaterScene['variant'], more: readonly DrawCall[] = []): void => {
      const around = { images: this.images, environment, camera };
      const backdrop = plain ? [] : this.programs.backdrop.drawCalls(rig, around, size, samples, ground.length === 0);
      const [red = 0, green = 0, blue = 0] = plain ? PLAIN_GROUND : rig.background;
      const empty = backdrop.length > 0 || ground.length > 0 || (rig.transparent && !plain);
      this.device.runPass({
        colour,
        depth,
        clear: empty ? [0, 0, 0, 0] : [red, green, blue, 1],
        draws: [
          ...this.groundCalls(picture, ground, globals, samples, by),
          ...backdrop,
          ...this.surfaceCalls(picture, others, globals, samples, by),
          ...hulls(false),
          ...more,
        ],
      });
    };
    const wires = isWireView(inspection.view) ? picture.items : [];
    const wireCalls = wires.map((item) =>
      this.programs.wires.drawCall(item, this.blocks.frame.buffer.buffer, samples, (each, program) => drawOwn(each, program, samples)),
    );
    open(targets, variant, wireCalls);
    if (later.length > 0) {
      // However a picture is taken apart, what is seen through glass is whole.
      const apart = variant === 'inspect' && !plain && later.some(({ surface }) => surface?.compiled.transmits);
      const untouched = apart ? this.targetsFor(size, samples, 'whole') : undefined;
      if (untouched) open(untouched, untaken);
      // What is occluded lies behind them.
      this.near = undefined;
      const own = variant === 'inspect' ? variant : shaded;
      this.drawLater({ targets, whole: untouched, picture, looks, later, globals, samples, variant: own, untaken: shaded });
    }
    this.drawThrough(targets, hullItems(lined, true), hulls(true), globals, samples);
    targets.resolve();
    const drawEdge: EdgePicture['drawCall'] = (item, program) => this.drawCall(item, globals, 1, program);
    const { items } = picture;
    return this.programs.edges.draw(targets.resolved, { items, groups, camera, size, cssSize, samples, drawCall: drawEdge });
  }

  private uploadFrame(plain: FrameGlobals, rig: LightRig): FrameGlobals {
    const globals = new Map([...plain, ...environmentGlobals(rig, this.environments.find(rig.environment)?.harmonics)]);
    for (const { layout, buffer } of [this.blocks.frame, this.blocks.lights]) {
      writeBlock(layout, globals, buffer.words);
      buffer.upload();
    }
    return globals;
  }

  /** What is seen through or looks behind it, over what is drawn already. */
  private drawLater({ targets, whole, picture, looks, later, globals, samples, variant, untaken }: LaterScene): void {
    const blurs = later.some(({ surface }) => surface?.compiled.transmits);
    if (looks) this.behind = targets.behind;
    const lay = ({ colour, depth }: RenderTargets, item: FrameItem, by: LaterScene['variant']): void =>
      this.device.runPass({ colour, depth, draws: this.surfaceCalls(picture, [item], globals, samples, by) });
    for (const { item, looksAnew } of layersOf(later, picture.camera)) {
      if (looks && looksAnew) {
        this.device.resolve((whole ?? targets).colour, targets.behind.colour);
        if (blurs) this.blurBehind(targets.behind);
      }
      lay(targets, item, variant);
      if (whole) lay(whole, item, untaken);
    }
    const gathered = later.filter(isGathered);
    if (gathered.length === 0) return;
    const light = this.surfaceCalls(picture, gathered, globals, samples, variant);
    if (picture.lens) this.device.runPass({ colour: targets.colour, depth: targets.depth, draws: light });
    else this.programs.gathering.draw(targets, light, this.surfaceCalls(picture, gathered, globals, samples, 'cover'), samples);
  }

  /** Makes smaller and smaller pictures of what is behind, and of how far it is. */
  private blurBehind({ colour, distance }: BehindTargets): void {
    const values = new Map([['inverseSize', [1 / colour.width, 1 / colour.height, 0, 0]]]);
    const call = this.programs.inverse.drawCall(this.inverseValues, values, { farScene: distance });
    this.device.runPass({ colour, draws: [call] });
    this.device.fillMips(colour);
  }

  /** How far what hides others is, and where it faces. */
  private drawDistances({ distance, depth }: DistanceTargets, items: readonly FrameItem[], globals: FrameGlobals): void {
    const draws = items.map((item) => this.drawCall(item, globals, 1, item.surface?.has('distance') ? 'distance' : this.programs.distance));
    this.device.runPass({ colour: distance, depth, clear: [FAR_AWAY, 0, 0, 0], draws });
  }

  /** Floors that end softly, or of which only shadow is seen: what they leave open shows what is behind them. */
  private groundCalls(
    picture: Picture,
    items: readonly FrameItem[],
    globals: FrameGlobals,
    samples: SampleCount,
    variant: LaterScene['variant'],
  ): DrawCall[] {
    const { shadow, fade } = this.programs.ground;
    return items.flatMap((item) => {
      if (item.part?.ground === 'fading')
        return [...this.surfaceCalls(picture, [item], globals, samples, variant), this.drawCall(item, globals, samples, fade)];
      // Light can only be summed up with all that lights need.
      return item.surface ? [this.drawCall(item, globals, samples, shadow), this.drawCall(item, globals, samples, fade)] : [];
    });
  }

  private surfaceCalls(
    { inspection, lens }: Picture,
    items: readonly FrameItem[],
    globals: FrameGlobals,
    samples: SampleCount,
    variant?: Exclude<SurfaceVariant, 'hull'>,
  ): DrawCall[] {
    if (!lens && inspection?.view === 'wires') return [];
    return items.map((item) => {
      if (!lens) return this.drawCall(item, globals, samples, variant);
      return this.drawCall(item, globals, samples, item.surface === lens.surface ? undefined : this.programs.quiet);
    });
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
    surface: Surface,
    outlets: readonly number[],
    pixel: { readonly x: number; readonly y: number },
    size: PictureSize,
    cssSize = size,
  ): Promise<ProbedPoint | undefined> {
    return this.outlets.probe(picture.items, surface, outlets, pixel, size, this.outletScene(picture, cssSize));
  }

  /** The values of an outlet all over a small picture; see `OutletPasses.spread`. */
  spread(picture: Picture, surface: Surface, outlet: number, size: PictureSize): Promise<(readonly number[])[]> {
    return this.outlets.spread(picture.items, surface, outlet, size, this.outletScene(picture));
  }

  private outletScene(picture: Omit<Picture, 'items'> & { readonly items?: readonly FrameItem[] }, cssSize?: PictureSize): OutletScene {
    const { camera, rig, casters, seconds, lightSeconds = seconds } = picture;
    const shadows = casters ? shadowViews(rig, lightSeconds, casters.ball) : [];
    return {
      frame: (size, corner) =>
        this.uploadFrame(frameGlobals(camera, rig, size, { seconds, lightSeconds }, shadows, cssSize ?? size, corner), rig),
      drawCall: (item, globals, quiet) => this.drawCall(item, globals, 1, quiet ? this.programs.quiet : undefined),
    };
  }

  /** Grown meshes that are only hidden by what they belong to, whatever stands in front. */
  private drawThrough(
    targets: RenderTargets,
    items: readonly FrameItem[],
    hulls: readonly DrawCall[],
    globals: FrameGlobals,
    samples: SampleCount,
  ): void {
    if (items.length === 0) return;
    const own = items.map((item) =>
      this.drawCall(item, globals, samples, item.surface?.compiled.shaped ? undefined : this.programs.notReady),
    );
    this.device.runPass({ depth: targets.ownDepth, clear: [0, 0, 0, 0], draws: own });
    this.device.runPass({ colour: targets.colour, depth: targets.ownDepth, draws: hulls });
  }

  /** A grown mesh: its far side, and of an open one also the rim of the near side. */
  private hullCalls(item: FrameItem, globals: FrameGlobals, samples: SampleCount): DrawCall[] {
    const { mesh, surface, part } = item;
    if (!surface) return [];
    const { grown, rim } = mesh.hull;
    const call = (ways: DeviceBuffer, cull: 'front' | 'back'): DrawCall => ({
      ...this.drawCall(item, globals, samples),
      pipeline: surface.pipeline({ samples, cull, mirrored: part?.mirrored ?? false }, 'hull'),
      vertexBuffers: mesh.of({ ...surface.compiled, ways, copies: part?.copies }),
    });
    return [call(grown, 'front'), ...(rim ? [call(rim, 'back')] : [])];
  }

  private drawCall(
    { mesh, surface, material, part }: FrameItem,
    globals: FrameGlobals,
    samples: SampleCount,
    by?: Exclude<SurfaceVariant, 'hull'> | SurfacePipelines,
  ): DrawCall {
    const values = surface && material && surface.bindings(material, globals, part?.live, part?.values);
    const object = (part?.object ?? mesh.object).buffer;
    const { frame, lights, inspect } = this.blocks;
    const blocks = {
      Frame: frame.buffer.buffer,
      Lights: lights.buffer.buffer,
      Inspect: inspect.buffer.buffer,
      Object: object,
      Peek: this.outlets.buffer,
    };
    const state = { samples, cull: part?.cull ?? (mesh.closed ? 'back' : 'none'), mirrored: part?.mirrored ?? false } as const;
    const own = surface && values && !(by instanceof SurfacePipelines) ? surface.pipeline(state, by) : undefined;
    return {
      pipeline: own ?? (by instanceof SurfacePipelines ? by : this.programs.notReady).get(state),
      bindings: [
        values
          ? {
              blocks: { ...blocks, Material: values.buffer },
              textures: {
                ...this.images.texturesFor(surface.images, material.images),
                shadowAtlas: this.programs.shadows.atlas,
                nearOcclusion: this.near ?? this.programs.near.nothing,
                ...this.aroundTextures(surface),
                ...this.behindTextures(),
              },
            }
          : { blocks, textures: {} },
      ],
      vertexBuffers: mesh.of({ ...(own && surface?.compiled), copies: part?.copies }),
      indices: mesh.indices,
      first: part?.first ?? 0,
      count: part?.count ?? mesh.indexCount,
      copies: part?.copyCount ?? 1,
    };
  }

  private aroundTextures({ compiled }: Surface): Record<string, DeviceTexture> {
    const { environments } = this.programs;
    return {
      environmentCube: this.environments.current?.filtered ?? environments.nothing,
      ...(compiled.weighsAlbedos ? { splitSum: environments.albedos } : {}),
    };
  }

  private behindTextures(): Record<'sceneDistance' | 'sceneBehind' | 'sceneThrough', DeviceTexture> {
    this.nothing ??= new RenderTargets(this.device, { width: 1, height: 1 }, 1).behind;
    const { distance, colour } = this.behind ?? this.nothing;
    return { sceneDistance: distance, sceneBehind: colour, sceneThrough: colour };
  }

  /** At most a few sizes are alive: full, small while dragging, warm-up, thumbnail. */
  private targetsFor(size: PictureSize, samples: SampleCount, use = ''): RenderTargets {
    const key = `${size.width}x${size.height}x${samples}${use}`;
    const found = this.targets.get(key);
    if (found) {
      this.targets.delete(key);
      this.targets.set(key, found);
      return found;
    }
    const [oldest] = this.targets.keys();
    if (oldest !== undefined && this.targets.size >= MOST_TARGETS) {
      const gone = this.targets.get(oldest);
      if (gone?.has(this.behind)) this.behind = undefined;
      gone?.destroy();
      this.targets.delete(oldest);
    }
    const made = new RenderTargets(this.device, size, samples);
    this.targets.set(key, made);
    return made;
  }
}

const MOST_TARGETS = 6;
/** Metres at which nothing stands: farther than the camera goes, and still a half float. */
const FAR_AWAY = 6e4;

/** What a picture needs of its environment besides light from all around. */
function environmentNeed({ rig: { environment, transparent }, items }: Picture): EnvironmentNeed {
  const seen = environment?.shows === true && !transparent;
  const mirrored = environment?.lights === true && items.some(({ surface }) => surface?.compiled.mirrors);
  return { sharp: seen && environment.blur === 0, filtered: mirrored || (seen && environment.blur > 0) };
}

/** Whether what is seen is a property, or a value. */
function isPlain({ inspection, lens }: Picture): boolean {
  return lens !== undefined || (inspection !== undefined && showsProperty(inspection));
}

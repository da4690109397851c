import { libraryProgram } from '../catalogue/library';
import { PLAIN_VERTICES } from '../compile/surface-programs';
import type { Device, DeviceTexture, DrawCall } from '../device/device';
import type { OrbitCamera } from '../scene/camera';
import type { FrameItem } from './frame-item';
import { FullScreen } from './full-screen';
import type { LineGroup } from './outlines';
import { ProgramPipelines, type SampleCount } from './program-pipelines';
import type { OwnValues } from './own-values';
import type { PictureSize } from './picture-part';

/** What the passes draw into. */
interface EdgeTargets {
  readonly size: PictureSize;
  readonly fine: number;
  /** Normal, depth and number of what is seen. */
  readonly surface: DeviceTexture;
  /** The colour of its lines. */
  readonly colour: DeviceTexture;
  readonly depth: DeviceTexture;
  /** The scene with lines on it, one after the other. */
  readonly results: readonly [DeviceTexture, DeviceTexture];
}

export interface EdgePicture {
  readonly items: readonly FrameItem[];
  readonly groups: readonly LineGroup[];
  readonly camera: OrbitCamera;
  readonly size: PictureSize;
  readonly cssSize: PictureSize;
  /** Pixels of the whole picture, of which this may be a part. */
  readonly whole: PictureSize;
  readonly samples: SampleCount;
  /** An item's drawing with one sample, by a program for surfaces or its own for lines. */
  readonly drawCall: (item: FrameItem, program: ProgramPipelines | 'lines' | 'edges') => DrawCall;
}

/**
 * Lines where depth, direction or part breaks in the picture (after Saito and Takahashi 1990, "Comprehensible rendering
 * of 3-D shapes", SIGGRAPH). In antialiased pictures they are found at twice the size.
 */
export class EdgePasses {
  private targets?: EdgeTargets;
  private readonly values: OwnValues[] = [];

  /** Draws normal, depth and number of meshes that have no shape of their own. */
  readonly surfaces: ProgramPipelines;
  private readonly edges: FullScreen;

  constructor(private readonly device: Device) {
    this.surfaces = ProgramPipelines.own(device, 'edge surface', PLAIN_VERTICES, () => libraryProgram('edge_surface.frag'));
    this.edges = new FullScreen(device, 'edges', 'Edges', 'lines');
  }

  /** The scene with its lines; the scene itself where there are none. */
  draw(scene: DeviceTexture, picture: EdgePicture): DeviceTexture {
    let result = scene;
    let turn = 0;
    for (const hidden of [false, true]) {
      const groups = picture.groups.filter(({ outline }) => outline.hidden === hidden);
      if (groups.length === 0) continue;
      const targets = this.targetsFor(picture.size, picture.samples === 4 ? 2 : 1);
      this.drawSurfaces(targets, hidden ? groups.flatMap(({ items }) => items) : picture.items, groups, picture.drawCall);
      for (const group of groups) {
        const target = targets.results[turn % 2] ?? result;
        this.drawLines(result, target, targets, group, picture, turn++);
        result = target;
      }
    }
    return result;
  }

  private drawSurfaces(
    { surface, colour, depth }: EdgeTargets,
    items: readonly FrameItem[],
    groups: readonly LineGroup[],
    drawCall: EdgePicture['drawCall'],
  ): void {
    this.device.runPass({
      label: 'lines',
      colour: surface,
      depth,
      clear: [0, 0, 0, 0],
      draws: items.map((item) => drawCall(item, item.surface?.compiled.shaped ? 'edges' : this.surfaces)),
    });
    const lined = groups.flatMap((group) => group.items);
    this.device.runPass({ label: 'lines', colour, depth, clear: [0, 0, 0, 0], draws: lined.map((item) => drawCall(item, 'lines')) });
  }

  private drawLines(
    scene: DeviceTexture,
    target: DeviceTexture,
    { fine, surface, colour }: EdgeTargets,
    { outline, first, last }: LineGroup,
    { camera, cssSize, whole }: EdgePicture,
    turn: number,
  ): void {
    const scale = (whole.height / Math.max(cssSize.height, 1)) * fine;
    // Metres count as they look at the distance of what is looked at.
    const pixels = outline.unit === 'pixels' ? outline.width : (outline.width * cssSize.height) / heightSeen(camera);
    const values = new Map([
      ['edgeSize', [surface.width, surface.height, fine, camera.orthographic ? 0 : 1]],
      ['edgeLine', [Math.max((pixels * scale) / 2, 0.5), first, last, 0]],
    ]);
    const buffer = (this.values[turn] ??= this.edges.createValues());
    const textures = { sceneColour: scene, edgeSurface: surface, edgeColour: colour };
    this.edges.draw(target, buffer, values, textures);
  }

  private targetsFor(size: PictureSize, fine: number): EdgeTargets {
    const { targets } = this;
    if (targets?.size.width === size.width && targets.size.height === size.height && targets.fine === fine) return targets;
    if (targets) for (const each of [targets.surface, targets.colour, targets.depth, ...targets.results]) each.destroy();
    const texture = ({ width, height }: PictureSize, format: DeviceTexture['format']): DeviceTexture =>
      this.device.createTexture({ width, height, format, samples: 1 });
    const large = { width: size.width * fine, height: size.height * fine };
    return (this.targets = {
      size,
      fine,
      surface: texture(large, 'rgba16float'),
      colour: texture(large, 'rgba16float'),
      depth: texture(large, 'depth24plus'),
      results: [texture(size, 'rgba16float'), texture(size, 'rgba16float')],
    });
  }
}

/** Metres between the lower and the upper edge of the picture, where the camera looks at. */
function heightSeen({ distance, fieldOfView }: OrbitCamera): number {
  return 2 * distance * Math.tan(fieldOfView / 2);
}

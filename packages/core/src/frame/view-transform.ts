import { TONE_CURVES, type LightRig } from '@brelvin/contract';
import type { Device, DeviceTexture } from '../device/device';
import { FullScreen } from './full-screen';
import type { PicturePart } from './picture-part';
import type { OwnValues } from './own-values';

/** How a picture is seen. */
export interface View {
  /** Exposure, tone curve and bloom; nothing for values, which are shown as they are. */
  readonly rig?: LightRig;
  /** What spreads from bright places. */
  readonly spread?: DeviceTexture;
  /** Leaves values linear. */
  readonly linear: boolean;
  /** What stands where nothing is: nothing, since the picture is whole; squares; or alpha. */
  readonly empty: 'none' | 'squares' | 'alpha';
  /** As large as the target: a whole picture, whose bright edges are smoothed on the way. */
  readonly between?: DeviceTexture;
  /** What of the picture it is. */
  readonly part: PicturePart;
}

const EMPTY = ['none', 'squares', 'alpha'] as const;

/** From scene-linear light to what a display shows: exposure, bloom, tone curve, encoding. */
export class ViewTransform {
  private readonly bent: FullScreen;
  /** The same without tone curve and bloom, which most pictures do without. */
  private readonly plain: FullScreen;
  private readonly edges: FullScreen;
  private readonly values: OwnValues;
  private readonly edgeValues: OwnValues;

  constructor(device: Device) {
    this.bent = new FullScreen(device, 'view_transform', 'View', 'view transform');
    this.plain = new FullScreen(device, 'plain_view', 'View', 'view transform');
    this.edges = new FullScreen(device, 'bright_edges', 'BrightEdges', 'view transform');
    this.values = this.bent.createValues();
    this.edgeValues = this.edges.createValues();
  }

  draw(
    scene: DeviceTexture,
    target: 'canvas' | DeviceTexture,
    { rig, spread, linear, empty, between, part: { whole, corner } }: View,
    { width, height }: Size,
  ): void {
    const factor = rig ? 2 ** rig.exposure : 1;
    const curve = rig ? TONE_CURVES.indexOf(rig.curve) : 0;
    const values = new Map([
      ['viewExposure', [factor, curve, spread && rig ? rig.bloom.strength : 0, linear ? 1 : 0]],
      ['viewSize', [width, height, EMPTY.indexOf(empty), 0]],
      ['viewPart', [...corner, 1 / whole.width, 1 / whole.height]],
    ]);
    const view = curve !== 0 || spread ? this.bent : this.plain;
    view.draw(between ?? target, this.values, values, { sceneColour: scene, bloomColour: spread ?? scene });
    if (!between) return;
    const exposure = new Map([['edgeExposure', [factor, 0, 0, 0]]]);
    this.edges.draw(target, this.edgeValues, exposure, { brightScene: scene, seenPicture: between });
  }
}

/** Pixels of the target. */
interface Size {
  readonly width: number;
  readonly height: number;
}

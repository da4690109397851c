import type { Device } from '../device/device';
import type { FrameItem } from './frame-item';
import type { FramePrograms } from './frame-programs';
import type { PlainVariant } from './item-drawings';
import { layersOf } from './layers';
import type { Overview } from './overview';
import type { OwnValues } from './own-values';
import type { Picture } from './picture';
import type { PictureContext } from './picture-context';
import { isUnordered } from './see-through';
import type { SurfaceDrawings } from './surface-drawings';
import type { BehindTargets, RenderTargets } from './targets';

/** What is drawn after all that hides what is behind it, and into what. */
export interface LaterScene {
  readonly targets: RenderTargets;
  /** The same picture whole, where `targets` hold it taken apart. */
  readonly whole?: RenderTargets;
  readonly picture: Picture;
  /** Whether any of them looks at what is behind it. */
  readonly looks: boolean;
  readonly items: readonly FrameItem[];
  readonly context: PictureContext;
  /** Of a large picture: is filled with what is behind each layer, or has it already. */
  readonly overview?: { readonly fill: boolean; readonly of: Overview };
  readonly variant?: PlainVariant;
  /** The variant of the whole picture. */
  readonly untaken?: PlainVariant;
}

/** Draws what is seen through or looks behind it, over what is drawn already. */
export class LaterPasses {
  private readonly inverseValues: OwnValues;

  constructor(
    private readonly device: Device,
    private readonly programs: Pick<FramePrograms, 'inverse' | 'gathering'>,
    private readonly surfaces: SurfaceDrawings,
  ) {
    this.inverseValues = programs.inverse.createValues();
  }

  draw({ targets, whole, picture, looks, items, context, overview, variant, untaken }: LaterScene): void {
    const blurs = items.some(({ surface }) => surface?.compiled.transmits);
    let seeing = looks && !overview ? context.seeing({ behind: targets.behind }) : context;
    let layer = 0;
    const lay = ({ colour, depth, formats }: RenderTargets, some: readonly FrameItem[], by?: PlainVariant): void =>
      this.device.runPass({ label: 'seen through', colour, depth, draws: this.surfaces.calls(picture, some, seeing, formats, by) });
    for (const { item, looksAnew } of layersOf(items, picture.camera)) {
      if (looks && looksAnew) {
        const known = overview && !overview.fill ? overview.of.behind(layer++) : undefined;
        const behind = known ?? (overview?.fill ? overview.of.another(targets.behind) : targets.behind);
        if (overview) seeing = context.seeing({ behind });
        if (!known) this.device.resolve((whole ?? targets).colour, behind.colour);
        if (!known && blurs) this.blur(behind);
      }
      lay(targets, [item], variant);
      if (whole) lay(whole, [item], untaken);
    }
    const gathered = items.filter(isUnordered);
    if (gathered.length === 0) return;
    if (picture.lens) return lay(targets, gathered, variant);
    const calls = (by?: PlainVariant): ReturnType<SurfaceDrawings['calls']> =>
      this.surfaces.calls(picture, gathered, seeing, targets.formats, by);
    this.programs.gathering.draw(targets, calls(variant), calls('cover'));
  }

  /** Makes smaller and smaller pictures of what is behind, and of how far it is. */
  private blur({ colour, distance }: BehindTargets): void {
    const values = new Map([['inverseNearest', [NEAREST, 0, 0, 0]]]);
    this.programs.inverse.draw(colour, this.inverseValues, values, { farScene: distance });
    this.device.fillMips(colour);
  }
}

/** Metres; depths below are taken for this one. */
const NEAREST = 1e-3;

import type { DrawCall, PassFormats } from '../device/device';
import { outletVariant } from '../compile/compile-outlets';
import type { FrameItem } from './frame-item';
import type { FramePrograms } from './frame-programs';
import type { ItemDrawings, PlainVariant } from './item-drawings';
import type { Picture } from './picture';
import type { PictureContext } from './picture-context';

/** Drawings of what is seen in a picture, however it is looked at. */
export class SurfaceDrawings {
  constructor(
    private readonly drawings: ItemDrawings,
    private readonly programs: Pick<FramePrograms, 'quiet' | 'ground'>,
  ) {}

  calls(
    { inspection, lens }: Picture,
    items: readonly FrameItem[],
    context: PictureContext,
    into: PassFormats,
    variant?: PlainVariant,
  ): DrawCall[] {
    if (!lens && inspection?.view === 'wires') return [];
    return items.map((item) => {
      if (!lens) return this.drawings.call(item, context, into, variant);
      return this.drawings.call(item, context, into, item.surface === lens.surface ? outletVariant(lens.outlet) : this.programs.quiet);
    });
  }

  /** Floors that end softly, or of which only shadow is seen: what they leave open shows what is behind them. */
  groundCalls(
    picture: Picture,
    items: readonly FrameItem[],
    context: PictureContext,
    into: PassFormats,
    variant?: PlainVariant,
  ): DrawCall[] {
    const { shadow, fade } = this.programs.ground;
    return items.flatMap((item) => {
      const faded = this.drawings.call(item, context, into, fade);
      if (item.part?.ground === 'fading') return [...this.calls(picture, [item], context, into, variant), faded];
      // Light can only be summed up with all that lights need.
      return item.surface ? [this.drawings.call(item, context, into, shadow), faded] : [];
    });
  }
}

import { LruCache } from '../cache/lru-cache';
import type { Device, DeviceTexture, DrawCall, PassFormats } from '../device/device';
import type { FrameItem } from './frame-item';
import type { ItemDrawings } from './item-drawings';
import type { PictureContext } from './picture-context';
import type { PictureSize } from './picture-part';
import { DISTANCE_FORMATS } from './targets';

interface RecordTargets {
  readonly record: DeviceTexture;
  readonly depth: DeviceTexture;
}

/** Full, small while dragging, thumbnail, and one to spare. */
const MOST_RECORDS = 4;

/** Traces the fields of a picture into a record, from which what their parts wear is drawn: once, however many parts and passes there are. */
export class FieldPasses {
  private readonly targets = new LruCache<RecordTargets>(MOST_RECORDS, ({ record, depth }) => {
    record.destroy();
    depth.destroy();
  });

  constructor(
    private readonly device: Device,
    private readonly drawings: ItemDrawings,
  ) {}

  /** The record of a picture as its context sees it; nothing where no field stands. */
  trace(items: readonly FrameItem[], size: PictureSize, context: PictureContext): DeviceTexture | undefined {
    const fields = onePerField(items);
    if (fields.length === 0) return undefined;
    const { record, depth } = this.targetsFor(size);
    const draws = fields.flatMap((item) =>
      item.field
        ? [this.drawings.fieldCall(item, context.bindings(item.field.trace.layout, item), item.field.trace, DISTANCE_FORMATS)]
        : [],
    );
    this.device.runPass({ label: 'fields', colour: record, depth, clear: [0, 0, 0, 0], draws });
    return record;
  }

  /** Drawings of how many steps the fields of a picture take, pixel by pixel. */
  stepCalls(items: readonly FrameItem[], context: PictureContext, into: PassFormats): DrawCall[] {
    return onePerField(items).flatMap((item) => {
      const steps = item.field?.steps;
      return steps ? [this.drawings.fieldCall(item, context.bindings(steps.layout, item), steps, into)] : [];
    });
  }

  private targetsFor({ width, height }: PictureSize): RecordTargets {
    const key = `${width}x${height}`;
    const known = this.targets.get(key);
    if (known) return known;
    const texture = (format: DeviceTexture['format']): DeviceTexture =>
      this.device.createTexture({
        width,
        height,
        format,
        samples: 1,
        sampling: { wrapX: 'clamp', wrapY: 'clamp', filter: 'sharp' },
      });
    const made = { record: texture('rgba32float'), depth: texture('depth24plus') };
    this.targets.set(key, made);
    return made;
  }
}

/** The first item of each field that stands there: its parts share its box. */
function onePerField(items: readonly FrameItem[]): FrameItem[] {
  return items.filter(({ field }, index) => field && items.findIndex((each) => each.field === field) === index);
}

import { LONGEST_FLOAT_SIDE, PictureRefused } from '../image/float-picture';

/** What the head of an OpenEXR file says (OpenEXR file layout, version 2). */
export interface ExrHead {
  readonly width: number;
  readonly height: number;
  readonly compression: string;
  readonly channels: readonly string[];
}

const COMPRESSIONS = ['none', 'RLE', 'ZIPS', 'ZIP', 'PIZ', 'PXR24', 'B44', 'B44A', 'DWAA', 'DWAB'] as const;
/** Compressions that are read. */
const READ: ReadonlySet<string> = new Set(['none', 'RLE', 'ZIPS', 'ZIP', 'PIZ', 'PXR24', 'B44', 'B44A']);

export function isExr(bytes: Uint8Array): boolean {
  return bytes[0] === 0x76 && bytes[1] === 0x2f && bytes[2] === 0x31 && bytes[3] === 0x01;
}

/**
 * Reads the head, and refuses what the reader behind it cannot do.
 *
 * @throws PictureRefused
 */
export function exrHead(bytes: Uint8Array): ExrHead {
  if (!isExr(bytes)) throw new PictureRefused('It is no OpenEXR picture.');
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const flags = bytes[5] ?? 0;
  if (flags & 0x02) throw new PictureRefused('Its pixels are in tiles; OpenEXR is read in rows. Save it as scan lines.');
  if (flags & 0x08) throw new PictureRefused('It has deep samples, several a pixel. Flatten it and save it again.');
  if (flags & 0x10) throw new PictureRefused('It has several parts. Save the one that is wanted alone.');
  let at = 8;
  const text = (): string => {
    const end = bytes.indexOf(0, at);
    if (end < 0 || end - at > 255) throw new PictureRefused('Its head is cut off or damaged.');
    const found = String.fromCharCode(...bytes.subarray(at, end));
    at = end + 1;
    return found;
  };
  let compression = '';
  let channels: string[] = [];
  let size = { width: 0, height: 0 };
  try {
    for (let name = text(); name !== ''; name = text()) {
      text();
      const length = view.getInt32(at, true);
      at += 4;
      if (length < 0 || at + length > bytes.length) throw new PictureRefused('Its head is cut off or damaged.');
      const next = at + length;
      if (name === 'compression') compression = COMPRESSIONS[view.getUint8(at)] ?? `number ${view.getUint8(at)}`;
      if (name === 'dataWindow')
        size = {
          width: view.getInt32(at + 8, true) - view.getInt32(at, true) + 1,
          height: view.getInt32(at + 12, true) - view.getInt32(at + 4, true) + 1,
        };
      if (name === 'channels') {
        channels = [];
        while (at < next - 1) {
          channels.push(text());
          at += 16;
        }
      }
      at = next;
    }
  } catch (error) {
    if (error instanceof RangeError) throw new PictureRefused('Its head is cut off or damaged.');
    throw error;
  }
  const { width, height } = size;
  if (width < 1 || height < 1 || width > LONGEST_FLOAT_SIDE || height > LONGEST_FLOAT_SIDE)
    throw new PictureRefused(`It claims ${width} × ${height} pixels; at most ${LONGEST_FLOAT_SIDE} on a side are read.`);
  if (!READ.has(compression))
    throw new PictureRefused(`It is packed by ${compression}, which is not read. Read are: ${[...READ].join(', ')}.`);
  const wanted = ['R', 'G', 'B'].every((each) => channels.includes(each)) || channels.includes('Y');
  if (!wanted) throw new PictureRefused(`It has the channels ${channels.slice(0, 8).join(', ') || 'none'}; R, G and B are needed, or Y.`);
  return { width, height, compression, channels };
}

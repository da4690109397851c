import { halfBits, LARGEST_HALF } from '../half';
import { PictureRefused, type FloatPicture } from '../float-picture';
import { withoutSources, type BrightSource, type LookingPicture } from './bright-sources';
import { faceDirection, faceSolidAngle, panoramaDirection, panoramaSolidAngle } from './directions';
import { facesHarmonics, panoramaHarmonics, type Harmonics } from './harmonics';

/** The widest panorama that is kept, pixels. */
export const LARGEST_PANORAMA = 2048;
/** The largest face of a cube that is kept, pixels. */
export const LARGEST_FACE = 512;

/** An environment as a device takes it: scene-linear RGBA half floats, of a panorama or of six faces of a side that is a power of two. */
export interface EnvironmentPixels {
  readonly kind: 'panorama' | 'faces';
  readonly width: number;
  readonly height: number;
  readonly levels: readonly Uint16Array<ArrayBuffer>[];
  /** The same without what is far brighter than the rest; absent where nothing is. */
  readonly dimmed?: readonly Uint16Array<ArrayBuffer>[];
  /** What was taken out of it. */
  readonly sources: readonly BrightSource[];
  readonly harmonics: Harmonics;
  /** What was done to the file on its way, in words. */
  readonly words: readonly string[];
}

/** @throws PictureRefused */
export function panoramaPixels(picture: FloatPicture, words: readonly (string | undefined)[] = []): EnvironmentPixels {
  const { picture: clean, words: mended } = cleaned(narrowed(picture, LARGEST_PANORAMA));
  const { width, height } = clean;
  if (width < 2 || height < 1) throw new PictureRefused('It is too small to surround anything.');
  const odd =
    Math.abs(width / height - 2) > 0.02
      ? `It is ${width} × ${height}; all around is twice as wide as high, so it is stretched.`
      : undefined;
  return {
    kind: 'panorama',
    width,
    height,
    levels: [halves(clean)],
    ...apart([
      {
        picture: clean,
        direction: (x, y) => panoramaDirection((x + 0.5) / width, (y + 0.5) / height),
        angle: (_, y) => panoramaSolidAngle(width, height, y),
        round: width,
      },
    ]),
    harmonics: panoramaHarmonics(clean),
    words: [...words, mended, odd].filter((each) => each !== undefined),
  };
}

/** @param faces +x −x +y −y +z −z @throws PictureRefused */
export function facesPixels(faces: readonly FloatPicture[], names: readonly string[] = []): EnvironmentPixels {
  const sizes = faces.map(({ width, height }) => `${width} × ${height}`);
  const [first] = faces;
  if (faces.length !== 6 || !first) throw new PictureRefused(`A cube has six images; these are ${faces.length}.`);
  faces.forEach(({ width, height }, index) => {
    const name = names[index] ?? `Image ${index + 1}`;
    if (width !== height) throw new PictureRefused(`${name} is ${sizes[index]}: the faces of a cube are squares.`);
    if (width !== first.width)
      throw new PictureRefused(`${name} is ${sizes[index]}, the first one ${sizes[0]}. All six must be of one size.`);
  });
  const side = Math.min(LARGEST_FACE, 2 ** Math.max(0, Math.round(Math.log2(first.width))));
  const fitted = faces.map((face) => cleaned(resized(face, side)));
  const words = side === first.width ? [] : [`Made ${side} × ${side} each, from ${sizes[0]}.`];
  return {
    kind: 'faces',
    width: side,
    height: side,
    levels: fitted.map(({ picture }) => halves(picture)),
    ...apart(
      fitted.map(({ picture }, face) => ({
        picture,
        direction: (x, y) => faceDirection(face, (x + 0.5) / side, (y + 0.5) / side),
        angle: (x, y) => faceSolidAngle(side, (x + 0.5) / side, (y + 0.5) / side),
        round: side * 4,
      })),
    ),
    harmonics: facesHarmonics(fitted.map(({ picture }) => picture)),
    words: [...words, ...new Set(fitted.flatMap((each) => each.words ?? []))],
  };
}

function apart(parts: readonly LookingPicture[]): Pick<EnvironmentPixels, 'dimmed' | 'sources'> {
  const { dimmed, sources } = withoutSources(parts);
  return sources.length > 0 ? { dimmed: dimmed.map(halves), sources } : { sources };
}

/** What no light can be, none; what no half float can hold, as bright as it can. */
function cleaned(picture: FloatPicture): { picture: FloatPicture; words?: string } {
  const { data } = picture;
  let wrong = 0;
  let beyond = 0;
  for (let index = 0; index < data.length; index++) {
    const value = data[index] ?? 0;
    if (value >= 0 && value <= LARGEST_HALF) continue;
    if (value > LARGEST_HALF) beyond++;
    else wrong++;
    data[index] = value > LARGEST_HALF ? LARGEST_HALF : 0;
  }
  const said = [
    wrong > 0 ? `${wrong} ${wrong === 1 ? 'value was' : 'values were'} negative or no number and count as 0.` : '',
    beyond > 0 ? `${beyond} ${beyond === 1 ? 'value was' : 'values were'} brighter than ${LARGEST_HALF} and count as that.` : '',
  ];
  return { picture, words: said.filter(Boolean).join(' ') || undefined };
}

/** Means of whole squares, for a picture that was not made smaller while it was read. */
function narrowed(picture: FloatPicture, widest: number): FloatPicture {
  const step = Math.ceil(picture.width / widest);
  if (step < 2) return picture;
  return resized(picture, Math.ceil(picture.width / step), Math.ceil(picture.height / step));
}

/** By means of what a new pixel covers, or by the nearest where pictures grow. */
export function resized({ width, height, data }: FloatPicture, wide: number, high = wide): FloatPicture {
  if (wide === width && high === height) return { width, height, data };
  const made = new Float32Array(wide * high * 3);
  const span = (at: number, from: number, to: number): [number, number] => {
    const begin = Math.floor((at * from) / to);
    return [begin, Math.max(begin + 1, Math.min(from, Math.ceil(((at + 1) * from) / to)))];
  };
  for (let y = 0; y < high; y++)
    for (let x = 0; x < wide; x++) {
      const [left, right] = span(x, width, wide);
      const [top, bottom] = span(y, height, high);
      const count = (right - left) * (bottom - top);
      for (let channel = 0; channel < 3; channel++) {
        let sum = 0;
        for (let row = top; row < bottom; row++)
          for (let column = left; column < right; column++) sum += data[(row * width + column) * 3 + channel] ?? 0;
        made[(y * wide + x) * 3 + channel] = sum / count;
      }
    }
  return { width: wide, height: high, data: made };
}

function halves({ data }: FloatPicture): Uint16Array<ArrayBuffer> {
  const pixels = data.length / 3;
  const made = new Uint16Array(pixels * 4);
  for (let index = 0; index < pixels; index++) {
    for (let channel = 0; channel < 3; channel++) made[index * 4 + channel] = halfBits(data[index * 3 + channel] ?? 0);
    made[index * 4 + 3] = ONE;
  }
  return made;
}

const ONE = halfBits(1);

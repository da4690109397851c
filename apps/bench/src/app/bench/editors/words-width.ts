const SIZE = '12px';
const known = new Map<string, number>();
let canvas: OffscreenCanvasRenderingContext2D | null | undefined;

/** How wide words are on cards, CSS pixels, in the page's font; each is measured once. */
export function wordsWidth(words: string, weight: 'bold' | '' = ''): number {
  const key = weight + words;
  let width = known.get(key);
  if (width === undefined) {
    canvas ??= new OffscreenCanvas(1, 1).getContext('2d');
    if (!canvas) return 0;
    canvas.font = `${weight && '600'} ${SIZE} ${getComputedStyle(document.body).fontFamily}`;
    width = canvas.measureText(words).width;
    known.set(key, width);
  }
  return width;
}

import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  input,
  output,
  signal,
  viewChild,
  ViewEncapsulation,
} from '@angular/core';
import type { MipChain } from '@brelvin/core';
import { shownPixels, type Channel } from './channels';
import type { UvLines } from './uv-lines';

/** A pixel under the pointer, as it is stored. */
export interface PixelReading {
  readonly x: number;
  readonly y: number;
  /** Red, green, blue and alpha, 0…255. */
  readonly stored: readonly number[];
}

const ZOOM_PER_WHEEL = 0.0016;
const KEY_ZOOM = 1.25;
const FARTHEST_ZOOM = 64;
/** From here on pixels are squares. */
const SQUARES_FROM = 3;
const MARGIN = 10;

/** An image as large as there is room: by channel, closer by the wheel, with a mesh's UVs over it. */
@Component({
  selector: 'brelvin-map-picture',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './map-picture.css',
  host: { class: 'map-picture' },
  template: `
    <canvas
      #canvas
      tabindex="0"
      role="img"
      [attr.aria-label]="label() + '. Wheel, plus and minus come closer, drag or arrow keys move it, 0 shows all of it.'"
      [attr.data-drawn]="drawn()"
      (wheel)="wheel($event)"
      (pointerdown)="down($event)"
      (pointermove)="move($event)"
      (pointerup)="dragging = undefined"
      (pointerleave)="read.emit(undefined)"
      (dblclick)="whole()"
      (keydown)="key($event)"
    ></canvas>
  `,
})
export class MapPicture {
  readonly label = input.required<string>();
  readonly chain = input<MipChain>();
  readonly channel = input<Channel>('all');
  readonly lines = input<UvLines>();
  readonly read = output<PixelReading | undefined>();

  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly size = signal({ width: 1, height: 1 });
  /** How much closer than whole, and where the middle of the view lies on the image, 0…1. */
  private readonly view = signal({ zoom: 1, x: 0.5, y: 0.5 });
  /** What the canvas holds, for whoever waits for it. */
  protected readonly drawn = signal('');
  protected dragging?: { readonly x: number; readonly y: number };

  private readonly picture = computed(() => {
    const chain = this.chain();
    if (!chain) return undefined;
    const { width, height, levels } = chain;
    const level = this.levelShown();
    const [w, h] = [Math.max(1, width >> level), Math.max(1, height >> level)];
    const bitmap = new OffscreenCanvas(w, h);
    bitmap.getContext('2d')?.putImageData(new ImageData(shownPixels(levels[level] ?? new Uint8Array(4), this.channel()), w, h), 0, 0);
    return bitmap;
  });
  /** CSS pixels an image pixel takes. */
  private readonly scale = computed(() => {
    const { width = 1, height = 1 } = this.chain() ?? {};
    const room = this.size();
    return Math.min((room.width - 2 * MARGIN) / width, (room.height - 2 * MARGIN) / height) * this.view().zoom;
  });
  /** A smaller level than what would fill the view is not worth its pixels. */
  private readonly levelShown = computed(() => {
    const { levels = [] } = this.chain() ?? {};
    const level = Math.floor(Math.log2(1 / Math.max(this.scale() * devicePixelRatio, 1e-4)));
    return Math.min(Math.max(level, 0), Math.max(levels.length - 1, 0));
  });

  constructor() {
    const destroyRef = inject(DestroyRef);
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    const watch = new ResizeObserver(() => this.size.set({ width: host.clientWidth || 1, height: host.clientHeight || 1 }));
    watch.observe(host);
    destroyRef.onDestroy(() => watch.disconnect());
    afterRenderEffect(() => this.draw());
  }

  private draw(): void {
    const canvas = this.canvas().nativeElement;
    const { width, height } = this.size();
    const ratio = Math.min(devicePixelRatio, 2);
    Object.assign(canvas, { width: Math.round(width * ratio), height: Math.round(height * ratio) });
    const context = canvas.getContext('2d');
    const picture = this.picture();
    if (!context || !picture) return;
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    const { left, top, wide, high } = this.frame();
    context.imageSmoothingEnabled = this.scale() < SQUARES_FROM;
    context.drawImage(picture, left, top, wide, high);
    this.drawLines(context);
    this.drawn.set(`${this.channel()} ${this.lines() ? 'uv' : ''}`);
  }

  /** Where the image lies in the view, CSS pixels. */
  private frame(): { left: number; top: number; wide: number; high: number } {
    const { width = 1, height = 1 } = this.chain() ?? {};
    const [wide, high] = [width * this.scale(), height * this.scale()];
    const { x, y } = this.view();
    return { left: this.size().width / 2 - wide * x, top: this.size().height / 2 - high * y, wide, high };
  }

  /** Black under white, so that lines are seen on whatever image. */
  private drawLines(context: CanvasRenderingContext2D): void {
    const ends = this.lines()?.ends;
    if (!ends) return;
    const { left, top, wide, high } = this.frame();
    context.beginPath();
    for (let at = 0; at < ends.length; at += 4) {
      context.moveTo(left + (ends[at] ?? 0) * wide, top + (ends[at + 1] ?? 0) * high);
      context.lineTo(left + (ends[at + 2] ?? 0) * wide, top + (ends[at + 3] ?? 0) * high);
    }
    // Many lines close together would hide what they lie on.
    const faint = Math.min(1, Math.max(0.3, (80 * this.view().zoom) / Math.sqrt(ends.length / 4)));
    for (const [grey, alpha, line] of [
      [0, 0.55, 1.6],
      [255, 0.8, 0.6],
    ] as const) {
      context.strokeStyle = `rgba(${grey}, ${grey}, ${grey}, ${alpha * faint})`;
      context.lineWidth = line;
      context.stroke();
    }
  }

  protected whole(): void {
    this.view.set({ zoom: 1, x: 0.5, y: 0.5 });
  }

  protected wheel(event: WheelEvent): void {
    event.preventDefault();
    this.closer(Math.exp(-event.deltaY * ZOOM_PER_WHEEL), event.offsetX, event.offsetY);
  }

  /** What is at a place of the view stays there. */
  private closer(by: number, atX = this.size().width / 2, atY = this.size().height / 2): void {
    const before = this.frame();
    const [x, y] = [(atX - before.left) / before.wide, (atY - before.top) / before.high];
    const zoom = Math.min(Math.max(this.view().zoom * by, 0.5), FARTHEST_ZOOM);
    const grown = zoom / this.view().zoom;
    this.view.set({
      zoom,
      x: x - (atX - this.size().width / 2) / (before.wide * grown),
      y: y - (atY - this.size().height / 2) / (before.high * grown),
    });
  }

  protected down(event: PointerEvent): void {
    this.canvas().nativeElement.setPointerCapture(event.pointerId);
    this.dragging = { x: event.clientX, y: event.clientY };
  }

  protected move(event: PointerEvent): void {
    if (this.dragging) {
      this.pan(event.clientX - this.dragging.x, event.clientY - this.dragging.y);
      this.dragging = { x: event.clientX, y: event.clientY };
    }
    this.read.emit(this.readingAt(event.offsetX, event.offsetY));
  }

  private pan(dx: number, dy: number): void {
    const { wide, high } = this.frame();
    this.view.update(({ zoom, x, y }) => ({ zoom, x: x - dx / wide, y: y - dy / high }));
  }

  private readingAt(atX: number, atY: number): PixelReading | undefined {
    const chain = this.chain();
    const { left, top } = this.frame();
    const [x, y] = [Math.floor((atX - left) / this.scale()), Math.floor((atY - top) / this.scale())];
    if (!chain || x < 0 || y < 0 || x >= chain.width || y >= chain.height) return undefined;
    const at = (y * chain.width + x) * 4;
    return { x, y, stored: [...(chain.levels[0]?.subarray(at, at + 4) ?? [])] };
  }

  protected key(event: KeyboardEvent): void {
    const step = 40;
    const actions: Record<string, () => void> = {
      '+': () => this.closer(KEY_ZOOM),
      '-': () => this.closer(1 / KEY_ZOOM),
      '0': () => this.whole(),
      ArrowLeft: () => this.pan(step, 0),
      ArrowRight: () => this.pan(-step, 0),
      ArrowUp: () => this.pan(0, step),
      ArrowDown: () => this.pan(0, -step),
    };
    const action = event.ctrlKey || event.metaKey || event.altKey ? undefined : actions[event.key];
    if (!action) return;
    event.preventDefault();
    action();
  }
}

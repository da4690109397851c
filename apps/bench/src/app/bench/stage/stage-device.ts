import { openPageDevice, PAGE_DEVICES, type PageDevice, type PageDeviceName } from '@brelvin/devices';

/** What draws now. */
export interface DrawnBy {
  readonly name: PageDeviceName;
  /** Why what was wished for does not. */
  readonly instead?: string;
}

interface OpenCanvas extends DrawnBy {
  readonly canvas: HTMLCanvasElement;
  readonly opened: PageDevice;
}

/** How each is called where it is spoken of. */
export const DEVICE_WORDS: Readonly<Record<PageDeviceName, string>> = { webgpu: 'WebGPU', webgl2: 'WebGL2' };

/**
 * The device that draws on a canvas in a place of the page. A canvas belongs to one kind of device for good, so another kind
 * gets another canvas; the last picture stays above it until the new device has drawn one.
 */
export class StageDevice {
  private now?: OpenCanvas;
  private before?: OpenCanvas;
  private hasDrawn = false;
  private isLost = false;
  private opens = 0;
  /** Kinds that went before they had drawn a picture: opened once more, they would go again. */
  private readonly failed = new Map<PageDeviceName, string>();

  constructor(
    private readonly place: HTMLElement,
    private readonly open = openPageDevice,
  ) {}

  get canvas(): HTMLCanvasElement | undefined {
    return this.now?.canvas;
  }

  /** Somebody wishes for a kind by name: it is given another chance. */
  forgive(name: PageDeviceName): void {
    this.failed.delete(name);
  }

  /**
   * Opens a device; another kind than was wished where that cannot be had.
   *
   * @returns nothing where another was wished for meanwhile
   * @throws Error with what the browser lacks, where none can be had
   */
  async draw(wished: PageDeviceName): Promise<(DrawnBy & { readonly opened: PageDevice }) | undefined> {
    const turn = ++this.opens;
    const reasons: string[] = [];
    for (const name of [wished, ...PAGE_DEVICES.filter((each) => each !== wished)]) {
      const failure = this.failed.get(name);
      if (failure !== undefined) {
        reasons.push(failure);
        continue;
      }
      const instead = reasons[0] && `${reasons[0]} ${DEVICE_WORDS[name]} draws instead.`;
      // It draws already.
      if (this.now?.name === name && !this.isLost) return (this.now = { ...this.now, instead });
      const canvas = this.now?.name === name ? this.now.canvas : document.createElement('canvas');
      try {
        const opened = await this.open(name, canvas);
        if (turn !== this.opens) {
          opened.close();
          return undefined;
        }
        return this.take({ name, canvas, opened, instead });
      } catch (error) {
        reasons.push(error instanceof Error ? error.message : String(error));
      }
    }
    if (turn !== this.opens) return undefined;
    throw new Error(reasons.at(-1));
  }

  private take(next: OpenCanvas): OpenCanvas {
    const { now } = this;
    this.hasDrawn = false;
    this.isLost = false;
    if (now && now.canvas !== next.canvas) {
      this.dropBefore();
      this.before = now;
    }
    this.now = next;
    this.place.prepend(next.canvas);
    return next;
  }

  /** The device is gone. */
  lose(): void {
    this.isLost = true;
    if (this.now && !this.hasDrawn)
      this.failed.set(this.now.name, `${DEVICE_WORDS[this.now.name]} was lost before it had drawn a picture.`);
  }

  /** A picture was drawn: the one before it is not needed any more. */
  settle(): void {
    this.hasDrawn = true;
    this.dropBefore();
  }

  private dropBefore(): void {
    this.before?.opened.close();
    this.before?.canvas.remove();
    this.before = undefined;
  }

  close(): void {
    this.opens++;
    this.dropBefore();
    this.now?.opened.close();
    this.now?.canvas.remove();
    this.now = undefined;
  }
}

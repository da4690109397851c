import { CdkContextMenuTrigger, CdkMenu, CdkMenuItem } from '@angular/cdk/menu';
import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  input,
  signal,
  viewChild,
  type AfterViewInit,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import {
  fittingOutlet,
  GROUP_KIND,
  inletKey,
  inletOf,
  joinEdits,
  type Area,
  type GraphProblem,
  type InletAddress,
  type Note,
  type Rate,
} from '@brelvin/core';
import { newId } from '../../shared/documents/new-id';
import type { Command } from '../commands/command';
import { dockPlaces, entryPlaces } from '../dock/dock-places';
import { EdgeStrip } from '../dock/edge-strip';
import { ImagePlacer } from '../images/image-placer';
import { MapSetWork } from '../maps/map-set-work';
import { droppedFiles } from '../../shared/files/dropped-files';
import { FileDrops } from '../../shared/files/file-drops';
import { sortedFiles } from '../../shared/files/sorted-files';
import { OutletWork } from '../looking/outlet-work';
import { CARD_WIDTH, HEADER_HEIGHT, type Point } from './card-layout';
import { BendRibbon } from './gestures/bend-ribbon';
import type { Gesture } from './gestures/gesture';
import { Marquee } from './gestures/marquee';
import { MoveCards } from './gestures/move-cards';
import { Pan } from './gestures/pan';
import { ResizeBox } from './gestures/resize-box';
import { carriedFrom, RunRibbon, setDown, type Carried } from './gestures/run-ribbon';
import { boxesOf, fitBoxes, overlaps, readyRound, ribbonAt, ribbonShapes, seenOf, type SurfaceMeasure } from './graph-shapes';
import { GraphView } from './graph-view';
import { GraphWork } from './graph-work';
import { NodeCard } from './node-card';
import { NodeFinder, type FoundKind, type LooseRibbon } from './node-finder';
import { Overview } from './overview';
import type { Rectangle } from './placed-graph';
import { Remark } from './remark';
import type { RibbonShape } from './ribbon-painter';
import { paintSurface } from './surface-painter';
import { cardMenu, groundMenu, inletMenu, remarkMenu, ribbonMenu, type MenuHands } from './surface-menus';

interface OpenFinder {
  readonly at: Point;
  /** Where the node goes: the finder itself keeps off the edges. */
  readonly to: Point;
  readonly start: string;
  readonly loose?: LooseRibbon;
  readonly carried?: Carried;
  /** A node that is to become another kind. */
  readonly swap?: string;
  /** A ribbon that the node is to go into. */
  readonly into?: InletAddress;
}

const ZOOM_PER_WHEEL = 0.0014;
const NUDGE = 10;
/** Below this zoom cards are only drawn: their words could not be read. */
const SMALLEST_WITH_CARDS = 0.32;
/** How far beyond the edge cards stand ready, in pixels of the screen. */
const READY = 240;
const FASTEST_FIRST: readonly Rate[] = ['pixel', 'vertex', 'frame', 'constant'];

/** The graph: cards, ribbons, areas, notes, its edges, and every gesture on them. */
@Component({
  selector: 'brelvin-graph-surface',
  imports: [CdkContextMenuTrigger, CdkMenu, CdkMenuItem, EdgeStrip, NodeCard, NodeFinder, Overview, Remark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'flex min-h-0 min-w-0 flex-1' },
  templateUrl: './graph-surface.html',
})
export class GraphSurface implements AfterViewInit {
  readonly problems = input<readonly GraphProblem[]>([]);
  readonly rates = input<Readonly<Record<string, Rate>>>({});
  readonly room = input.required<string>();

  protected readonly view = inject(GraphView);
  protected readonly work = inject(GraphWork);
  private readonly images = inject(ImagePlacer);
  private readonly drops = inject(FileDrops);
  private readonly maps = inject(MapSetWork);
  private readonly outlets = inject(OutletWork);
  private readonly destroyRef = inject(DestroyRef);
  private readonly surface = viewChild.required<ElementRef<HTMLElement>>('surface');
  private readonly world = viewChild.required<ElementRef<HTMLElement>>('world');
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('ribbons');

  protected readonly finder = signal<OpenFinder | undefined>(undefined);
  protected readonly refused = signal<string | undefined>(undefined);
  protected readonly menu = signal<readonly Command[]>([]);
  protected readonly naming = signal<string | undefined>(undefined);
  protected readonly measure = signal<SurfaceMeasure>({ width: 0, height: 0 });
  private readonly carriedByKeys = signal<Carried | undefined>(undefined);
  /** The part of the graph whose cards are in the page; grows ahead of the edge. */
  private readonly ready = signal<Rectangle>({ x: 0, y: 0, width: 0, height: 0 });
  private readonly detailed = signal(true);
  private gesture?: Gesture;
  private painting?: number;
  private pointer: Point = { x: 120, y: 120 };
  private refusedTimer?: ReturnType<typeof setTimeout>;
  private fitted = false;

  private readonly wrong = computed(() => new Set(this.problems().map((problem) => inletKey(problem.node, problem.inlet ?? ''))));
  protected readonly dock = computed(() => dockPlaces(this.work.typed()));
  protected readonly entry = computed(() => entryPlaces(this.work.typed()));
  protected readonly cards = computed(() => {
    if (!this.detailed()) return [];
    const seen = this.ready();
    return [...this.work.placed().cards.values()].filter(({ box }) => overlaps(box, seen));
  });
  protected readonly remarks = computed((): { readonly id: string; readonly area?: Area; readonly note?: Note }[] => {
    const { areas, notes } = this.work.typed().graph;
    return [...Object.entries(areas).map(([id, area]) => ({ id, area })), ...Object.entries(notes).map(([id, note]) => ({ id, note }))];
  });
  protected readonly isEmpty = computed(() => this.work.placed().cards.size === 0);

  constructor() {
    // Ribbons follow whatever they are drawn from: the graph, its types, the selection, the size, the room.
    afterRenderEffect(() => {
      this.work.typed();
      this.problems();
      this.room();
      this.view.selection();
      if (this.measure().width > 0) this.repaint();
    });
    this.work.refusals.pipe(takeUntilDestroyed()).subscribe((words) => this.refuse(words));
    this.view.fresh.pipe(takeUntilDestroyed()).subscribe(() => setTimeout(() => this.showAll()));
  }

  ngAfterViewInit(): void {
    const element = this.surface().nativeElement;
    const resize = new ResizeObserver(() => {
      const { width, height } = element.getBoundingClientRect();
      this.measure.set({ width, height });
      this.applyView();
      if (!this.fitted && width > 0) {
        this.fitted = true;
        if (!this.view.touched) this.showAll();
      }
    });
    resize.observe(element);
    const moves = this.view.moves.subscribe(() => this.applyView());
    this.destroyRef.onDestroy(() => {
      resize.disconnect();
      moves.unsubscribe();
      clearTimeout(this.refusedTimer);
      if (this.painting !== undefined) cancelAnimationFrame(this.painting);
    });
  }

  showAll(): void {
    this.view.set(fitBoxes(boxesOf(this.work.typed(), this.work.placed()), this.measure()));
  }

  showChosen(): void {
    const chosen = this.work.chosen();
    if (chosen.size > 0) this.view.set(fitBoxes(boxesOf(this.work.typed(), this.work.placed(), chosen), this.measure()));
    else this.showAll();
  }

  /** Brings a node into the middle, at a zoom at which it can be read, and gives it the focus. */
  showNode(id: string): void {
    const [box] = boxesOf(this.work.typed(), this.work.placed(), new Set([id]));
    if (!box) return;
    const { width, height } = this.measure();
    const zoom = Math.max(this.view.transform.zoom, 0.8);
    this.view.set({ x: width / 2 - (box.x + box.width / 2) * zoom, y: height / 2 - (box.y + box.height / 2) * zoom, zoom });
    this.view.select([id]);
  }

  /** Opens the node finder in the middle of what is seen. */
  openFinder(): void {
    const { width, height } = this.measure();
    this.find({ x: width / 2 - 120, y: height / 3 });
  }

  openSwap(): void {
    const [id] = this.work.chosen();
    const [box] = id === undefined ? [] : boxesOf(this.work.typed(), this.work.placed(), new Set([id]));
    if (id === undefined || !box) this.work.refuse('Choose the node to swap.');
    else this.find(this.view.toScreen(box), { swap: id });
  }

  startNaming(): void {
    const [id] = this.work.chosen();
    if (id === undefined) this.work.refuse('Choose what is to be named.');
    else this.naming.set(id);
  }

  /** Where something that is pasted goes: at the pointer. */
  pastePlace(): Point {
    return this.view.toGraph(this.pointer);
  }

  addNote(): void {
    this.work.addNote(this.view.toGraph(this.pointer));
    const [id] = this.view.selection();
    this.naming.set(id);
  }

  /** Image files become nodes at a place; dropped on an inlet, the first one runs into it. A set of maps is proposed first. */
  async takeFiles(files: readonly File[], at: Point, into?: InletAddress): Promise<void> {
    // A mesh, an environment or a Brelvin file is no image of this material.
    const { images, meshes, environments, documents } = sortedFiles(files);
    if (meshes.length + environments.length + documents.length > 0 && images.length === 0) this.drops.take(files);
    else if (!into && MapSetWork.fits(files)) await this.maps.take(files);
    else await this.images.drop(files, at, into);
  }

  /** Images for the middle of what is seen. */
  async takeImages(files: readonly File[]): Promise<void> {
    const { clientWidth, clientHeight } = this.surface().nativeElement;
    await this.takeFiles(files, this.view.toGraph({ x: clientWidth / 2, y: clientHeight / 2 }));
  }

  protected over(event: DragEvent): void {
    if (!event.dataTransfer?.types.includes('Files')) return;
    event.preventDefault();
    event.dataTransfer.dropEffect = 'copy';
  }

  protected dropped(event: DragEvent): void {
    const transfer = event.dataTransfer;
    if (!transfer?.types.includes('Files')) return;
    event.preventDefault();
    const target = event.target as HTMLElement;
    const card = target.closest<HTMLElement>('[data-card]');
    const inlet = target.closest('.card-row')?.querySelector<HTMLElement>('.port[data-inlet]')?.dataset['inlet'];
    const at = this.view.toGraph(this.local(event));
    const node = card?.dataset['card'];
    const into = node !== undefined && inlet !== undefined ? { node, inlet } : undefined;
    void droppedFiles(transfer).then((files) => this.takeFiles(files, into ? { x: at.x - CARD_WIDTH - 60, y: at.y } : at, into));
  }

  focus(): void {
    this.surface().nativeElement.focus({ preventScroll: true });
  }

  protected problemOf(id: string): string | undefined {
    const path = this.work.typed().pathOf(id);
    return this.problems().find(({ node }) => node === path || node.startsWith(`${path}/`))?.message;
  }

  /** How often a node is computed; a group as often as the fastest inside. */
  protected rateOf(id: string): Rate | undefined {
    const path = this.work.typed().pathOf(id);
    const rates = this.rates();
    if (this.work.typed().graph.nodes[id]?.kind !== GROUP_KIND) return rates[path];
    const inside = new Set(Object.entries(rates).flatMap(([each, rate]) => (each.startsWith(`${path}/`) ? [rate] : [])));
    return FASTEST_FIRST.find((rate) => inside.has(rate));
  }

  protected down(event: PointerEvent): void {
    if (event.button === 2) return;
    const at = (this.pointer = this.local(event));
    this.closeFinder();
    this.naming.set(undefined);
    this.gesture = this.gestureFor(event, at);
    if (!this.gesture) return;
    (event.currentTarget as HTMLElement).setPointerCapture(event.pointerId);
    this.repaint();
  }

  private gestureFor(event: PointerEvent, at: Point): Gesture | undefined {
    const { work, view } = this;
    const target = event.target as HTMLElement;
    const port = target.closest<HTMLElement>('.port');
    const carried = port && carriedFrom(work, port);
    if (port) {
      event.preventDefault();
      return carried ? new RunRibbon(work, view, this.measure, { void: (held) => this.findForRibbon(held) }, carried, at) : undefined;
    }
    const box = target.closest<HTMLElement>('[data-resize]')?.dataset['resize'];
    if (box) return new ResizeBox(work, view, box, at);
    const id = target.closest<HTMLElement>('[data-card], [data-remark]')?.dataset;
    const held = id?.['card'] ?? id?.['remark'] ?? this.drawnCardAt(at);
    if (held !== undefined && event.button === 0) {
      if (event.shiftKey) view.toggle(held);
      else if (!view.selection().has(held)) view.select([held]);
      return new MoveCards(work, view, at, () => this.shapes());
    }
    this.focus();
    const ribbon = event.button === 0 && !event.shiftKey ? ribbonAt(this.shapes(), at, view.transform.zoom) : undefined;
    if (ribbon) return new BendRibbon(work, view, ribbon, at);
    return event.shiftKey && event.button === 0 ? new Marquee(work, view, at) : new Pan(view, at);
  }

  /** The card under the pointer where cards are only drawn. */
  private drawnCardAt(at: Point): string | undefined {
    if (this.detailed()) return undefined;
    const spot = { ...this.view.toGraph(at), width: 1, height: 1 };
    return [...this.work.placed().cards.values()].find(({ box }) => overlaps(box, spot))?.id;
  }

  protected move(event: PointerEvent): void {
    this.pointer = this.local(event);
    if (!this.gesture) return;
    this.gesture.move(this.pointer, event);
    this.repaint();
  }

  protected up(event: PointerEvent): void {
    const { gesture } = this;
    this.gesture = undefined;
    gesture?.end(this.local(event), event);
    this.repaint();
  }

  protected cancel(): void {
    this.gesture?.cancel();
    this.gesture = undefined;
    this.repaint();
  }

  protected wheel(event: WheelEvent): void {
    event.preventDefault();
    this.view.zoomAt(this.local(event), Math.exp(-event.deltaY * ZOOM_PER_WHEEL));
  }

  /** Double-click: into a group, a name for a node or remark, a bend away. */
  protected doubled(event: MouseEvent): void {
    // The surface had captured the pointer, so the event itself no longer says what lies under it.
    const target = document.elementFromPoint(event.clientX, event.clientY);
    if (!target || target.closest('.port, .card-control')) return;
    const { card, remark } = target.closest<HTMLElement>('[data-card], [data-remark]')?.dataset ?? {};
    if (card && this.work.typed().graph.nodes[card]?.kind === GROUP_KIND) this.work.enter(card);
    else if (card ?? remark) this.naming.set(card ?? remark);
    else {
      const hit = ribbonAt(this.shapes(), this.local(event), this.view.transform.zoom);
      const { edits, graph } = this.work.typed();
      const bends = hit && graph.ribbons[hit.shape.key]?.bends;
      if (hit && bends && hit.bend >= 0)
        this.work.do(
          edits.setBends(
            inletOf(hit.shape.key),
            bends.filter((_, index) => index !== hit.bend),
          ),
        );
    }
  }

  protected key(event: KeyboardEvent): void {
    const target = event.target as HTMLElement;
    if (target.closest('input, textarea, .finder') || event.ctrlKey || event.metaKey || event.altKey) return;
    const nudge = NUDGES[event.key];
    const onCard = target.dataset['card'] ?? target.dataset['remark'];
    const onSurface = target === this.surface().nativeElement;
    const { material, edits } = this.work.typed();
    if (event.key === 'Escape') this.escape();
    else if (event.key === 'Delete' || event.key === 'Backspace') this.removeChosen(onCard, !event.shiftKey);
    else if (onCard && event.key === ' ') this.view.toggle(onCard);
    else if (onCard && event.key === 'Enter') this.open(onCard);
    else if (nudge && (onCard || onSurface) && this.work.chosen().size > 0)
      this.work.do(edits.move(material, this.work.chosen(), nudge[0] * NUDGE, nudge[1] * NUDGE), 'nudge');
    else if (nudge && onSurface) this.view.panBy(-nudge[0] * NUDGE * 4, -nudge[1] * NUDGE * 4);
    else if (/^[\p{L}\d]$/u.test(event.key) && !target.closest('.port, button')) this.type(event.key);
    else return;
    event.preventDefault();
  }

  /** Opens the finder; letters that come before its field has the focus are not lost. */
  private type(letter: string): void {
    const open = this.finder();
    if (open) this.finder.set({ ...open, start: open.start + letter });
    else this.find(this.pointer, { start: letter });
  }

  private open(id: string): void {
    if (this.work.typed().graph.nodes[id]?.kind === GROUP_KIND) this.work.enter(id);
    else this.view.toggle(id);
  }

  private escape(): void {
    const held = this.carriedByKeys() ?? this.gesture;
    this.carriedByKeys.set(undefined);
    this.cancel();
    if (held) return;
    if (this.view.selection().size > 0) this.view.select([]);
    else this.work.leave();
  }

  private removeChosen(focused: string | undefined, heal: boolean): void {
    const chosen = this.work.chosen();
    const ids = chosen.size > 0 ? chosen : new Set(focused === undefined ? [] : [focused]);
    if (ids.size === 0) return;
    this.work.remove(ids, heal);
    this.focus();
  }

  /** Ports answer to Enter and Space too: the first one takes a ribbon up, the second one sets it down. */
  protected portClicked(event: MouseEvent): void {
    const port = (event.target as HTMLElement).closest<HTMLElement>('.port');
    // A click without a pointer comes from the keyboard.
    if (!port || event.detail !== 0) return;
    const carried = this.carriedByKeys();
    if (!carried) {
      this.carriedByKeys.set(carriedFrom(this.work, port));
      this.refuse('A ribbon is taken up. Go to where it ends and press Enter; Escape lets it go.');
      return;
    }
    this.carriedByKeys.set(undefined);
    this.refused.set(undefined);
    setDown(this.work, carried, port);
  }

  protected closeFinder(): void {
    if (!this.finder()) return;
    this.finder.set(undefined);
    this.focus();
  }

  protected place({ kind, port, ready }: FoundKind, open: OpenFinder): void {
    this.closeFinder();
    if (open.swap !== undefined) {
      this.work.swap(open.swap, kind);
      return;
    }
    const id = newId();
    const at = this.view.toGraph(open.to);
    const offset = open.carried && 'to' in open.carried ? -CARD_WIDTH : 0;
    const { edits } = this.work.typed();
    const parts = [this.work.addition(id, kind, { x: at.x + offset, y: at.y - HEADER_HEIGHT / 2 }, ready)];
    if (port && open.carried) {
      parts.push(
        'from' in open.carried
          ? edits.connect(open.carried.from, { node: id, inlet: port })
          : edits.connect({ node: id, outlet: port }, open.carried.to),
      );
    }
    const wanted = open.into && this.work.typed().inletType(open.into);
    const outlet = wanted && fittingOutlet(kind, wanted);
    if (open.into && outlet) parts.push(edits.connect({ node: id, outlet: outlet.name }, open.into));
    this.work.do(joinEdits(`Add ${kind.title}`, ...parts));
    this.view.select([id]);
  }

  /** What can be done with what is under the pointer. */
  protected fillMenu(event: MouseEvent): void {
    const target = event.target as HTMLElement;
    const at = (this.pointer = this.local(event));
    const { card, remark } = target.closest<HTMLElement>('[data-card], [data-remark]')?.dataset ?? {};
    const inlet = target.closest('.card-row')?.querySelector<HTMLElement>('.port[data-inlet]')?.dataset;
    const held = card ?? remark;
    if (held !== undefined && !this.view.selection().has(held)) this.view.select([held]);
    const ribbon = held === undefined ? ribbonAt(this.shapes(), at, this.view.transform.zoom) : undefined;
    const { work, hands } = this;
    if (card && inlet?.['inlet'])
      this.menu.set([...inletMenu(work, { node: card, inlet: inlet['inlet'] }), ...cardMenu(work, hands, card)]);
    else if (card) this.menu.set(cardMenu(work, hands, card));
    else if (remark) this.menu.set(remarkMenu(work, hands, remark));
    else if (ribbon) this.menu.set(ribbonMenu(work, hands, inletOf(ribbon.shape.key), at));
    else this.menu.set(groundMenu(work, hands, at));
  }

  /** What menus need beyond the work itself. */
  private readonly hands: MenuHands = {
    swap: () => this.openSwap(),
    name: (id) => this.naming.set(id),
    find: (at) => this.find(at),
    insert: (to, at) => this.find(at, this.between(to)),
    note: () => this.addNote(),
    showAll: () => this.showAll(),
    peek: (id) => this.outlets.togglePeek(id),
  };

  /** A ribbon is carried on from its source; the node that is found is then also run to where it ended. */
  private between(to: InletAddress): Pick<OpenFinder, 'loose' | 'carried' | 'into'> {
    const typed = this.work.typed();
    const from = typed.sourceOf(to);
    if (!from) return {};
    const type = typed.outletType(from) ?? 'number';
    return { loose: { free: 'inlet', type }, carried: { from, type }, into: to };
  }

  private findForRibbon(carried: Carried): void {
    const loose: LooseRibbon = { free: 'from' in carried ? 'inlet' : 'outlet', type: carried.type };
    this.find(this.pointer, { loose, carried });
  }

  private refuse(words: string): void {
    this.refused.set(words);
    clearTimeout(this.refusedTimer);
    this.refusedTimer = setTimeout(() => this.refused.set(undefined), 6000);
  }

  private local(event: MouseEvent): Point {
    const box = this.surface().nativeElement.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
  }

  /** Opens the finder at a place, but never over the edge. */
  private find(to: Point, rest: Partial<OpenFinder> = {}): void {
    const { width, height } = this.measure();
    const at = { x: Math.min(Math.max(to.x, 8), Math.max(width - 260, 8)), y: Math.min(Math.max(to.y, 8), Math.max(height - 310, 8)) };
    this.finder.set({ at, to, start: '', ...rest });
  }

  private applyView(): void {
    const { x, y, zoom } = this.view.transform;
    this.world().nativeElement.style.transform = `translate(${x}px, ${y}px) scale(${zoom})`;
    this.detailed.set(zoom >= SMALLEST_WITH_CARDS);
    this.ready.update((ready) => readyRound(seenOf(this.view, this.measure()), ready, READY / zoom));
    this.repaint();
  }

  /** Several reasons to paint in one frame make one painting. */
  private repaint(): void {
    this.painting ??= requestAnimationFrame(() => {
      this.painting = undefined;
      this.paint();
    });
  }

  private paint(): void {
    const { view, gesture } = this;
    const [typed, placed, measure] = [this.work.typed(), this.work.placed(), this.measure()];
    const shapes = (): readonly RibbonShape[] => this.shapes();
    paintSurface(this.canvas().nativeElement, { typed, placed, view, measure, shapes, gesture, detailed: this.detailed() });
  }

  /** Ribbons on the screen. */
  private shapes(): readonly RibbonShape[] {
    return ribbonShapes(this.work.placed(), this.wrong(), this.work.unused(), this.view, this.measure());
  }
}

const NUDGES: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

import { CdkContextMenuTrigger, CdkMenu, CdkMenuItem } from '@angular/cdk/menu';
import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  ElementRef,
  inject,
  signal,
  viewChild,
  type AfterViewInit,
  ViewEncapsulation,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import type { Area, Note } from '@brelvin/contract';
import { GROUP_KIND, inletKey, inletOf, startEdit, STARTERS, type InletAddress, type Rate, type Starter } from '@brelvin/core';
import { Themes } from '../../shared/themes/themes';
import type { Command } from '../commands/command';
import { BenchResult } from '../stage/bench-result';
import { dockPlaces, entryPlaces } from './dock-places';
import { EdgeStrip } from './edge-strip';
import { ImagePlacer } from '../images/image-placer';
import { MapSetEditor } from '../maps/map-set-editor';
import { droppedFiles } from '../../shared/files/dropped-files';
import { FileDrops } from '../../shared/files/file-drops';
import { sortedFiles } from '../../shared/files/sorted-files';
import { OutletInspector } from '../looking/outlet-inspector';
import { NARROWEST_CARD, type Point } from '../editors/card-layout';
import { BendRibbon } from './gestures/bend-ribbon';
import type { Gesture } from './gestures/gesture';
import { Marquee } from './gestures/marquee';
import { MoveCards } from './gestures/move-cards';
import { Pan } from './gestures/pan';
import { ResizeBox } from './gestures/resize-box';
import { carriedFrom, RunRibbon, type Carried } from './gestures/run-ribbon';
import { boxesOf, fitBoxes, overlaps, readyRound, ribbonAt, ribbonShapes, seenOf, type SurfaceMeasure } from './graph-shapes';
import { GraphView } from '../editors/graph-view';
import { GraphEditor } from '../editors/graph-editor';
import { NodeCard } from './node-card';
import { NodeFinder, type FoundKind } from './node-finder';
import { Overview } from './overview';
import type { Rectangle } from '../editors/placed-graph';
import { Remark } from './remark';
import type { RibbonShape } from './ribbon-painter';
import { SurfaceFinder, type OpenFinder } from './surface-finder';
import { drawnCardAt, hitOf } from './surface-hits';
import { SurfaceKeys } from './surface-keys';
import { SurfaceBinding, type SurfaceActions } from '../editors/surface-binding';
import { paintSurface } from './surface-painter';
import { cardMenu, groundMenu, inletMenu, remarkMenu, ribbonMenu, type MenuActions } from './surface-menus';

const ZOOM_PER_WHEEL = 0.0014;
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
  encapsulation: ViewEncapsulation.None,
  styleUrl: './graph-surface.css',
  host: { class: 'flex min-h-0 min-w-0 flex-1', '(document:keydown)': 'keyOutside($event)' },
  templateUrl: './graph-surface.html',
})
export class GraphSurface implements AfterViewInit, SurfaceActions {
  protected readonly view = inject(GraphView);
  protected readonly editor = inject(GraphEditor);
  private readonly result = inject(BenchResult);
  private readonly themes = inject(Themes);
  private readonly images = inject(ImagePlacer);
  private readonly drops = inject(FileDrops);
  private readonly maps = inject(MapSetEditor);
  private readonly outlets = inject(OutletInspector);
  private readonly destroyRef = inject(DestroyRef);
  private readonly surface = viewChild.required<ElementRef<HTMLElement>>('surface');
  private readonly world = viewChild.required<ElementRef<HTMLElement>>('world');
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('ribbons');

  protected readonly refused = signal<string | undefined>(undefined);
  protected readonly menu = signal<readonly Command[]>([]);
  protected readonly naming = signal<string | undefined>(undefined);
  protected readonly measure = signal<SurfaceMeasure>({ width: 0, height: 0 });
  protected readonly finder = new SurfaceFinder(this.editor, this.view, this.measure);
  /** The part of the graph whose cards are in the page; grows ahead of the edge. */
  private readonly ready = signal<Rectangle>({ x: 0, y: 0, width: 0, height: 0 });
  private readonly detailed = signal(true);
  private gesture?: Gesture;
  private painting?: number;
  private pointer: Point = { x: 120, y: 120 };
  private refusedTimer?: ReturnType<typeof setTimeout>;
  private fitted = false;

  private readonly wrong = computed(() => new Set(this.result.problems().map((problem) => inletKey(problem.node, problem.inlet ?? ''))));
  protected readonly dock = computed(() => dockPlaces(this.editor.typed()));
  protected readonly entry = computed(() => entryPlaces(this.editor.typed()));
  protected readonly cards = computed(() => {
    if (!this.detailed()) return [];
    const seen = this.ready();
    return [...this.editor.placed().cards.values()].filter(({ box }) => overlaps(box, seen));
  });
  protected readonly remarks = computed((): { readonly id: string; readonly area?: Area; readonly note?: Note }[] => {
    const { areas, notes } = this.editor.typed().graph;
    return [...Object.entries(areas).map(([id, area]) => ({ id, area })), ...Object.entries(notes).map(([id, note]) => ({ id, note }))];
  });
  protected readonly starters = STARTERS;
  protected readonly isEmpty = computed(() => this.editor.placed().cards.size === 0);

  constructor() {
    // Ribbons follow whatever they are drawn from: the graph, its types, the selection, the size, the room.
    afterRenderEffect(() => {
      this.editor.typed();
      this.result.problems();
      this.themes.current();
      this.view.selection();
      if (this.measure().width > 0) this.repaint();
    });
    const link = inject(SurfaceBinding);
    link.actions.set(this);
    this.destroyRef.onDestroy(() => link.actions.set(undefined));
    this.editor.refusals.pipe(takeUntilDestroyed()).subscribe((words) => this.refuse(words));
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

  /** Begins an empty graph with something ready. */
  protected start(starter: Starter): void {
    this.editor.do(startEdit(starter));
    setTimeout(() => this.showAll());
  }

  showAll(): void {
    this.view.set(fitBoxes(boxesOf(this.editor.typed(), this.editor.placed()), this.measure()));
  }

  showChosen(): void {
    const chosen = this.editor.chosen();
    if (chosen.size > 0) this.view.set(fitBoxes(boxesOf(this.editor.typed(), this.editor.placed(), chosen), this.measure()));
    else this.showAll();
  }

  /** Brings a node into the middle, at a zoom at which it can be read, and gives it the focus. */
  showNode(id: string): void {
    const [box] = boxesOf(this.editor.typed(), this.editor.placed(), new Set([id]));
    if (!box) return;
    const { width, height } = this.measure();
    const zoom = Math.max(this.view.transform.zoom, 0.8);
    this.view.set({ x: width / 2 - (box.x + box.width / 2) * zoom, y: height / 2 - (box.y + box.height / 2) * zoom, zoom });
    this.view.select([id]);
  }

  openFinder(): void {
    this.finder.findInMiddle();
  }

  openSwap(): void {
    this.finder.findSwap();
  }

  startNaming(): void {
    const [id] = this.editor.chosen();
    if (id === undefined) this.editor.refuse('Select what is to be named.');
    else this.naming.set(id);
  }

  /** Where something that is pasted goes: at the pointer. */
  pastePlace(): Point {
    return this.view.toGraph(this.pointer);
  }

  addNote(): void {
    this.editor.addNote(this.view.toGraph(this.pointer));
    const [id] = this.view.selection();
    this.naming.set(id);
  }

  /** Image files become nodes at a place; dropped on an inlet, the first one runs into it. A set of maps is proposed first. */
  async takeFiles(files: readonly File[], at: Point, into?: InletAddress): Promise<void> {
    // A mesh, an environment or a Brelvin file is no image of this material.
    const { images, meshes, environments, documents } = sortedFiles(files);
    if (meshes.length + environments.length + documents.length > 0 && images.length === 0) this.drops.take(files);
    else if (!into && MapSetEditor.fits(files)) await this.maps.take(files);
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
    const { inlet: into } = hitOf(event.target as HTMLElement);
    const at = this.view.toGraph(this.local(event));
    void droppedFiles(transfer).then((files) => this.takeFiles(files, into ? { x: at.x - NARROWEST_CARD - 60, y: at.y } : at, into));
  }

  focus(): void {
    this.surface().nativeElement.focus({ preventScroll: true });
  }

  protected problemOf(id: string): string | undefined {
    const path = this.editor.typed().pathOf(id);
    return this.result.problems().find(({ node }) => node === path || node.startsWith(`${path}/`))?.message;
  }

  /** How often a node is computed; a group as often as the fastest inside. */
  protected rateOf(id: string): Rate | undefined {
    const path = this.editor.typed().pathOf(id);
    const rates = this.result.rates();
    if (this.editor.typed().graph.nodes[id]?.kind !== GROUP_KIND) return rates[path];
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
    const { editor, view } = this;
    const { port, corner, card, remark } = hitOf(event.target as HTMLElement);
    const carried = port && carriedFrom(editor, port);
    if (port) {
      event.preventDefault();
      const actions = { void: (held: Carried) => this.finder.findForRibbon(held, this.pointer) };
      return carried ? new RunRibbon(editor, view, this.measure, actions, carried, at) : undefined;
    }
    if (corner) return new ResizeBox(editor, view, corner, at);
    const held = card ?? remark ?? (this.detailed() ? undefined : drawnCardAt(editor.placed(), view.toGraph(at)));
    if (held !== undefined && event.button === 0) {
      if (event.shiftKey) view.toggle(held);
      else if (!view.selection().has(held)) view.select([held]);
      return new MoveCards(editor, view, at, () => this.shapes());
    }
    this.focus();
    const ribbon = event.button === 0 && !event.shiftKey ? ribbonAt(this.shapes(), at, view.transform.zoom) : undefined;
    if (ribbon) return new BendRibbon(editor, view, ribbon, at);
    return event.shiftKey && event.button === 0 ? new Marquee(editor, view, at) : new Pan(view, at);
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
    const { card, remark, control } = target ? hitOf(target) : { control: true };
    if (control) return;
    if (card && this.editor.typed().graph.nodes[card]?.kind === GROUP_KIND) this.editor.enter(card);
    else if (card ?? remark) this.naming.set(card ?? remark);
    else {
      const hit = ribbonAt(this.shapes(), this.local(event), this.view.transform.zoom);
      const { edits, graph } = this.editor.typed();
      const bends = hit && graph.ribbons[hit.shape.key]?.bends;
      if (hit && bends && hit.bend >= 0)
        this.editor.do(
          edits.setBends(
            inletOf(hit.shape.key),
            bends.filter((_, index) => index !== hit.bend),
          ),
        );
    }
  }

  /** A key that goes nowhere is for the graph: a fresh page is typed on at once. */
  protected keyOutside(event: KeyboardEvent): void {
    if (event.target === document.body && !event.defaultPrevented) this.keys.press(event, true);
  }

  protected key(event: KeyboardEvent): void {
    this.keys.press(event, event.target === this.surface().nativeElement);
  }

  protected portClicked(event: MouseEvent): void {
    const { port } = hitOf(event.target as HTMLElement);
    // A click without a pointer comes from the keyboard.
    if (port && event.detail === 0) this.keys.pressPort(port);
  }

  protected closeFinder(): void {
    if (this.finder.close()) this.focus();
  }

  protected place(found: FoundKind, open: OpenFinder): void {
    this.closeFinder();
    this.finder.place(found, open);
  }

  /** What can be done with what is under the pointer. */
  protected fillMenu(event: MouseEvent): void {
    const at = (this.pointer = this.local(event));
    const { card, remark, inlet } = hitOf(event.target as HTMLElement);
    const held = card ?? remark;
    if (held !== undefined && !this.view.selection().has(held)) this.view.select([held]);
    const ribbon = held === undefined ? ribbonAt(this.shapes(), at, this.view.transform.zoom) : undefined;
    const { editor, actions } = this;
    if (card && inlet) this.menu.set([...inletMenu(editor, inlet), ...cardMenu(editor, actions, card)]);
    else if (card) this.menu.set(cardMenu(editor, actions, card));
    else if (remark) this.menu.set(remarkMenu(editor, actions, remark));
    else if (ribbon) this.menu.set(ribbonMenu(editor, actions, inletOf(ribbon.shape.key), at));
    else this.menu.set(groundMenu(editor, actions, at));
  }

  /** What menus need beyond the work itself. */
  private readonly actions: MenuActions = {
    swap: () => this.openSwap(),
    name: (id) => this.naming.set(id),
    find: (at) => this.finder.find(at),
    insert: (to, at) => this.finder.findBetween(to, at),
    note: () => this.addNote(),
    showAll: () => this.showAll(),
    peek: (id) => this.outlets.togglePeek(id),
  };

  private readonly keys = new SurfaceKeys(this.editor, this.view, {
    letGo: () => {
      const held = this.gesture !== undefined;
      this.cancel();
      return held;
    },
    type: (letter) => this.finder.type(letter, this.pointer),
    say: (words) => (words === undefined ? this.refused.set(undefined) : this.refuse(words)),
    focus: () => this.focus(),
  });

  private refuse(words: string): void {
    this.refused.set(words);
    clearTimeout(this.refusedTimer);
    this.refusedTimer = setTimeout(() => this.refused.set(undefined), 6000);
  }

  private local(event: MouseEvent): Point {
    const box = this.surface().nativeElement.getBoundingClientRect();
    return { x: event.clientX - box.left, y: event.clientY - box.top };
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
    const [typed, placed, measure] = [this.editor.typed(), this.editor.placed(), this.measure()];
    const shapes = (): readonly RibbonShape[] => this.shapes();
    paintSurface(this.canvas().nativeElement, { typed, placed, view, measure, shapes, gesture, detailed: this.detailed() });
  }

  /** Ribbons on the screen. */
  private shapes(): readonly RibbonShape[] {
    return ribbonShapes(this.editor.placed(), this.wrong(), this.editor.unused(), this.view, this.measure());
  }
}

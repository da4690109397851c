import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  inject,
  input,
  signal,
  untracked,
  viewChild,
  type Signal,
} from '@angular/core';
import { takeUntilDestroyed, toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import {
  codeKey,
  LONGEST_NAME,
  newRig,
  newSet,
  rename,
  type BrelvinDocument,
  type Edit,
  type GraphProblem,
  type LightRig,
  type Material,
  type PartAddress,
  type StageSet,
} from '@brelvin/core';
import { of, switchMap, type Observable } from 'rxjs';
import { DocumentApi } from '../shared/api/document-api';
import { RecentMaterials } from '../shared/documents/recent-materials';
import { saveWords } from '../shared/documents/save-words';
import { Workbench } from '../shared/documents/workbench';
import { Tabs } from '../shared/controls/tabs';
import { Icon } from '../shared/icons/icon';
import { download } from '../shared/pixels/download';
import { NoticeList } from '../shared/notices/notice-list';
import { RoomSwitch } from '../shared/rooms/room-switch';
import { Rooms } from '../shared/rooms/rooms';
import { AboutPanel } from './about/about-panel';
import { CheckRunner } from './checks/check-runner';
import { ChecksPanel } from './checks/checks-panel';
import { CodeView } from './code/code-view';
import { CodeWork } from './code/code-work';
import { FunctionLink } from './code/function-link';
import { BesideOpener } from './beside-opener';
import { benchCommands } from './commands/bench-commands';
import { isKeys, type Command } from './commands/command';
import { CommandList } from './commands/command-list';
import { CompareBar } from './compare/compare-bar';
import { CompareLine } from './compare/compare-line';
import { CompareMenu } from './compare/compare-menu';
import { CompareWork } from './compare/compare-work';
import { Compiler } from './compile/compiler';
import { DocumentMenu } from './document-menu';
import { copyNodes, inText, pasteNodes } from './graph/clipboard';
import { GraphSurface } from './graph/graph-surface';
import { GraphView } from './graph/graph-view';
import { GraphWork, type GraphEdit } from './graph/graph-work';
import { Tidier } from './graph/tidier';
import { HistoryPanel } from './history/history-panel';
import { ImagePlacer } from './images/image-placer';
import { KeysHelp } from './keys-help';
import { BenchLayout } from './layout/bench-layout';
import { StageEdge } from './layout/stage-edge';
import { EnvironmentDrop } from './lights/environment-drop';
import { EnvironmentWork } from './lights/environment-work';
import { RigCorner, type RigTab } from './lights/rig-corner';
import { RigWork } from './lights/rig-work';
import { LinkedImages } from './maps/linked-images';
import { MapSetWork } from './maps/map-set-work';
import { MapsView } from './maps/maps-view';
import { BenchFiles } from './bench-files';
import { SendOut, type SendOutWish } from './send-out';
import { SendOutMenu } from './send-out-menu';
import { OpacityPanel } from './outline/opacity-panel';
import { OutlinePanel } from './outline/outline-panel';
import { panelTabs, type Panel } from './panel-tabs';
import { ParametersPanel } from './parameters/parameters-panel';
import { PartsView } from './parts/parts-view';
import { LensLink } from './looking/lens-link';
import { OutletWork } from './looking/outlet-work';
import { PeekBar } from './looking/peek-bar';
import { ProbePanel } from './looking/probe-panel';
import { ProbePins } from './looking/probe-pins';
import { ProbeWork } from './looking/probe-work';
import { MeshBar } from './stage/mesh-bar';
import { Stage } from './stage/stage';
import { StageFiles } from './stage/stage-files';
import { StageLink } from './stage/stage-link';
import { StageLook } from './stage/stage-look';
import { StageMaterials } from './stage/stage-materials';
import { ThumbnailKeeper } from './stage/thumbnail-keeper';
import { ViewMenu, VIEW_WORDS } from './stage/view-menu';
import { workspaceTabs, type Workspace } from './workspace-tabs';

/** The Bench: one material with its set and light rig, its graph, its picture. */
@Component({
  selector: 'brelvin-bench-page',
  imports: [
    SendOutMenu,
    AboutPanel,
    ChecksPanel,
    CodeView,
    CommandList,
    CompareBar,
    CompareLine,
    CompareMenu,
    DocumentMenu,
    GraphSurface,
    HistoryPanel,
    Icon,
    KeysHelp,
    EnvironmentDrop,
    MapsView,
    RigCorner,
    ViewMenu,
    MeshBar,
    OpacityPanel,
    OutlinePanel,
    ParametersPanel,
    PartsView,
    PeekBar,
    ProbePanel,
    ProbePins,
    NoticeList,
    RoomSwitch,
    RouterLink,
    Stage,
    StageEdge,
    Tabs,
  ],
  providers: [
    BenchFiles,
    BenchLayout,
    BesideOpener,
    CheckRunner,
    CodeWork,
    CompareWork,
    Compiler,
    FunctionLink,
    EnvironmentWork,
    GraphView,
    GraphWork,
    ImagePlacer,
    LensLink,
    LinkedImages,
    MapSetWork,
    OutletWork,
    ProbeWork,
    RigWork,
    StageFiles,
    StageLink,
    StageLook,
    StageMaterials,
    ThumbnailKeeper,
    Tidier,
    Workbench,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: {
    class: 'bench',
    '[class.bench-alone]': 'layout.alone()',
    '(document:keydown)': 'key($event)',
    '(document:copy)': 'copy($event, false)',
    '(document:cut)': 'copy($event, true)',
    '(document:paste)': 'paste($event)',
    '(window:beforeunload)': 'leaving($event)',
  },
  templateUrl: './bench-page.html',
})
export class BenchPage {
  /** Id of the material, from the address. */
  readonly id = input.required<string>();
  /** A function of the Library that is to be shown in the code tab, from the address. */
  readonly function = input<string>();

  private readonly api = inject(DocumentApi);
  private readonly workbench = inject(Workbench);
  protected readonly compiler = inject(Compiler);
  private readonly router = inject(Router);
  private readonly recents = inject(RecentMaterials);
  private readonly beside = inject(BesideOpener);
  private readonly destroyRef = inject(DestroyRef);
  protected readonly stageMaterials = inject(StageMaterials);
  protected readonly files = inject(StageFiles);
  protected readonly benchFiles = inject(BenchFiles);
  private readonly out = inject(SendOut);
  private readonly maps = inject(MapSetWork);
  protected readonly tidier = inject(Tidier);
  protected readonly view = inject(GraphView);
  protected readonly work = inject(GraphWork);
  protected readonly rooms = inject(Rooms);
  protected readonly layout = inject(BenchLayout);

  private readonly stage = viewChild(Stage);
  private readonly surface = viewChild(GraphSurface);

  protected readonly longestName = LONGEST_NAME;
  protected readonly failure = signal<string | undefined>(undefined);
  protected readonly message = signal<string | undefined>(undefined);
  protected readonly keysShown = signal(false);
  protected readonly commandsShown = signal(false);
  protected readonly tab = signal<Workspace>('graph');
  protected readonly notLoaded = 'This part of Brelvin could not be loaded: the server can not be reached. Reload the page.';
  protected readonly codeWork = inject(CodeWork);
  private readonly thumbnails = inject(ThumbnailKeeper);
  private readonly functions = inject(FunctionLink);
  protected readonly panel = signal<Panel>('about');
  protected readonly rigTab = signal<RigTab>('lights');
  protected readonly checks = inject(CheckRunner);
  protected readonly compare = inject(CompareWork);
  private readonly rigWork = inject(RigWork);
  protected readonly look = inject(StageLook);
  protected readonly link = inject(StageLink);
  protected readonly outlets = inject(OutletWork);
  private readonly probes = inject(ProbeWork);
  protected readonly chosenPart = signal<PartAddress | undefined>(undefined);
  private readonly setId = signal<string | undefined>(undefined);
  private readonly rigId = signal<string | undefined>(undefined);

  protected readonly material = toSignal(toObservable(this.id).pipe(switchMap((id) => this.workbench.watch<Material>(id))));
  protected readonly set = this.watching<StageSet>(this.setId);
  protected readonly rig = this.watching<LightRig>(this.rigId);
  /** The mesh whose numbers the bar below the picture shows: of the chosen part, else the first. */
  protected readonly meshId = computed(() => {
    const meshes = this.set()?.meshes ?? {};
    const chosen = this.chosenPart()?.mesh;
    if (chosen !== undefined && Object.hasOwn(meshes, chosen)) return chosen;
    return Object.entries(meshes).sort(([, a], [, b]) => a.order - b.order)[0]?.[0] ?? '';
  });
  protected readonly mesh = computed(() => this.set()?.meshes[this.meshId()]);
  protected readonly saveState = toSignal(this.workbench.saveState, { initialValue: { kind: 'saved' as const } });
  protected readonly history = toSignal(this.workbench.history);
  protected readonly compiled = toSignal(toObservable(this.id).pipe(switchMap((id) => this.compiler.watch(id))));
  /** What the compiler says; failing that, what the graphics driver refused, at the node it is about. */
  protected readonly problems = computed((): readonly GraphProblem[] => {
    const found = this.compiled()?.problems ?? [];
    const refusal = this.stageState()?.refusal;
    if (found.length > 0 || !refusal) return found;
    const known = refusal.node !== undefined && this.work.resolved().nodes.has(refusal.node);
    return [{ node: known ? (refusal.node ?? '') : '', message: refusal.message }];
  });
  protected readonly workspaces = computed(() => workspaceTabs(this.material()?.code !== undefined));
  protected readonly panels = computed(() => panelTabs(this.problems().length, this.checks.result().findings.length));
  protected readonly rates = computed(() => this.compiled()?.rates ?? {});
  protected readonly undoLabel = computed(() => this.history()?.done.at(-1)?.label);
  protected readonly redoLabel = computed(() => this.history()?.undone.at(-1)?.label);
  protected readonly stageState = this.link.state;
  protected readonly saveWords = computed(() => saveWords(this.saveState()));

  constructor() {
    effect(() => {
      const id = this.id();
      untracked(() => void this.open(id));
    });
    effect(() => {
      const [stage, set, rig] = [this.stage(), this.set(), this.rig()];
      if (stage && set && rig && this.material()) untracked(() => this.link.show(stage.engine(), { id: this.setId(), set }, rig));
    });
    effect(() => {
      const material = this.material();
      if (material) untracked(() => this.work.material.set(material));
    });
    const seenIn = computed(() => this.material()?.seenIn, { equal: (a, b) => a?.set === b?.set && a?.rig === b?.rig });
    effect(() => {
      const seen = seenIn();
      if (seen) untracked(() => void this.beside.follow(seen, this.setId, this.rigId));
    });
    effect(() => {
      const set = this.set();
      const id = this.id();
      if (this.material()) this.checks.subject.set({ id, set });
      if (set) untracked(() => void this.stageMaterials.dress(set));
    });
    effect(() => this.thumbnails.follow(this.id(), this.rigId()));
    effect(() => {
      const rig = this.rig();
      if (rig) untracked(() => this.rigWork.rig.set(rig));
    });
    inject(LensLink);
    effect(() => (this.maps.reading() ?? this.maps.proposal()) && this.tab.set('maps'));
    this.maps.wired.pipe(takeUntilDestroyed()).subscribe(() => {
      this.tab.set('graph');
      setTimeout(() => this.showAll());
    });
    effect(() => {
      const [result, code] = [this.compiled(), this.material()?.code];
      // What was said of an earlier text has its places there.
      if (result?.diagnostics && code && result.codeKey === codeKey(code)) this.codeWork.said.set(result.diagnostics);
      const program = result?.compiled?.program;
      if (program) this.codeWork.emitted.set({ fragment: program.fragment.text, vertex: program.vertex.text });
    });
    effect(() => {
      const probing = this.panel() === 'probe';
      this.outlets.probing.set(probing);
      if (!probing) untracked(() => this.probes.clear());
    });
    this.rigWork.done.pipe(takeUntilDestroyed()).subscribe((edit) => this.editRig(edit));
    this.work.done.pipe(takeUntilDestroyed()).subscribe((edit) => this.editMaterial(edit));
    // On the graph it stands where it happened.
    this.work.refusals.pipe(takeUntilDestroyed()).subscribe((words) => {
      if (this.tab() !== 'graph') this.message.set(words);
    });
    this.workbench.messages.pipe(takeUntilDestroyed()).subscribe((message) => this.message.set(message));
    this.destroyRef.onDestroy(() => this.workbench.closeAll());
    this.benchFiles.takeWith({
      rig: this.rigId,
      inCode: () => this.material()?.code !== undefined,
      chooseSet: (id) => this.chooseSet(id),
      showEnvironments: () => this.rigTab.set('around'),
      showTab: (tab) => this.tab.set(tab),
      takeImages: (images) => setTimeout(() => void this.surface()?.takeImages(images)),
    });
  }

  private watching<T extends BrelvinDocument>(id: Signal<string | undefined>): Signal<T | undefined> {
    return toSignal(
      toObservable(id).pipe(switchMap((each): Observable<T | undefined> => (each ? this.workbench.watch<T>(each) : of(undefined)))),
    );
  }

  private async open(id: string): Promise<void> {
    this.workbench.closeAll();
    this.functions.letGo();
    this.codeWork.clear();
    this.failure.set(undefined);
    try {
      await this.functions.ready();
      const material = await this.workbench.load(id);
      if (material.format !== 'brelvin-material') {
        this.failure.set(`“${material.name}” is not a material. Choose one in the Library.`);
        return;
      }
      this.codeWork.materialId.set(id);
      const name = this.function();
      this.tab.set(material.code || name !== undefined ? 'code' : 'graph');
      if (name !== undefined) await this.codeWork.showFunction(name);
      this.stageMaterials.setBench(id);
      this.compare.stop();
      this.compare.materialId.set(id);
      this.outlets.stopPeek();
      this.probes.clear();
      this.outlets.materialId.set(id);
      this.setId.set(await this.loadBeside(material.seenIn.set, newSet('Plain sphere')));
      this.rigId.set(await this.loadBeside(material.seenIn.rig, newRig('North window')));
      this.recents.opened(id);
      document.title = `${material.name} · Brelvin`;
    } catch (error) {
      this.failure.set(error instanceof Error ? error.message : String(error));
    }
  }

  private async loadBeside(id: string | undefined, instead: BrelvinDocument): Promise<string> {
    const beside = await this.beside.load(id, instead);
    if (beside.words !== undefined) this.message.set(beside.words);
    return beside.id;
  }

  protected editMaterial({ edit, gesture }: GraphEdit): void {
    this.workbench.edit(this.id(), edit, gesture);
  }

  protected editSet({ edit, gesture }: GraphEdit): void {
    const id = this.setId();
    if (id) this.workbench.edit(id, edit, gesture);
  }

  protected editRig({ edit, gesture }: GraphEdit): void {
    const id = this.rigId();
    if (id) this.workbench.edit(id, edit, gesture);
  }

  protected rename(field: HTMLInputElement): void {
    const name = field.value.trim();
    const before = this.material()?.name;
    if (name && name !== before) this.workbench.edit(this.id(), rename(name));
    else field.value = before ?? '';
    field.blur();
  }

  protected async chooseSet(id: string): Promise<void> {
    await this.choose(id, 'set', () => this.setId.set(id));
  }

  protected async chooseRig(id: string): Promise<void> {
    await this.choose(id, 'rig', () => this.rigId.set(id));
  }

  private async choose(id: string, which: 'set' | 'rig', use: () => void): Promise<void> {
    await this.attempt(async () => {
      const chosen = await this.workbench.load(id);
      use();
      const edit: Edit = { label: `Stand in ${chosen.name}`, changes: [{ path: ['seenIn', which], value: id }] };
      this.workbench.edit(this.id(), edit);
    });
  }

  /** Work whose failure is told. */
  private async attempt(job: () => Promise<unknown>): Promise<void> {
    try {
      await job();
    } catch (error) {
      this.message.set(error instanceof Error ? error.message : String(error));
    }
  }

  protected undo(): void {
    this.codeWork.flush();
    this.workbench.undo();
  }

  protected redo(): void {
    this.workbench.redo();
  }

  /** What the colours of a special view mean. */
  protected readonly viewLegend = computed(() => VIEW_WORDS[this.look.inspection().view][1]);

  protected async saveStill(): Promise<void> {
    const still = await this.link.engine()?.still();
    if (still) download(still, `${this.material()?.name ?? 'still'}.png`);
  }

  /** Brings a node into view, by its path; one inside of groups through them. */
  protected showNode(path: string): void {
    this.tab.set(this.material()?.code ? 'code' : 'graph');
    if (!path) return;
    const steps = path.split('/');
    this.work.leave(0);
    for (const step of steps.slice(0, -1)) this.work.enter(step);
    const last = steps.at(-1);
    if (last) setTimeout(() => this.surface()?.showNode(last));
  }

  /** A copy of the material that is written as the code of its graph. */
  protected async turnIntoCode(): Promise<void> {
    await this.attempt(async () => {
      const id = await this.codeWork.keepMade();
      if (id !== undefined) await this.router.navigate(['/bench', id]);
    });
  }

  /** Shows the code of the chosen node's function. */
  private readNodeCode(): void {
    const [id] = this.work.chosen();
    const kind = this.work.typed().graph.nodes[id ?? '']?.kind;
    if (kind === undefined) return;
    this.tab.set('code');
    this.codeWork.wantedKind.set(kind);
  }

  protected findNode(): void {
    this.surface()?.openFinder();
  }

  protected showAll(): void {
    this.surface()?.showAll();
  }

  /** Everything that can be done, for the list of commands and the keys. */
  protected readonly commands = computed((): readonly Command[] => {
    const surface = this.surface();
    return benchCommands({
      work: this.work,
      tidy: () => void this.tidy(),
      surface,
      undo: () => this.undo(),
      redo: () => this.redo(),
      frameMesh: () => this.link.engine()?.frameMesh(),
      toggleTime: () => this.link.togglePlaying(),
      toggleAlone: () => this.layout.toggleAlone(),
      toggleView: () => this.look.toggleView(),
      togglePeek: () => this.togglePeek(),
      toggleProbe: () => this.toggleProbe(),
      showKeys: () => this.keysShown.set(true),
      readCode: () => this.readNodeCode(),
      showTab: (tab) => this.tab.set(tab),
      sendOut: () => void this.sendOut(),
    });
  });

  protected async tidy(): Promise<void> {
    // The graph shows its new places only after this.
    if (await this.tidier.tidy()) setTimeout(() => this.surface()?.showAll());
  }

  /** A press on the picture places a pin while values are read, and chooses a part otherwise. */
  protected pickPart(place: { x: number; y: number }): void {
    const engine = this.link.engine();
    if (engine && this.panel() === 'probe') void this.probes.pin(engine, place.x, place.y);
    else this.chosenPart.set(engine?.pick(place.x, place.y));
  }

  protected pointAt(place: { x: number; y: number } | undefined): void {
    const engine = this.link.engine();
    if (!engine || this.panel() !== 'probe') return;
    if (place) void this.probes.followPointer(engine, place.x, place.y);
    else this.probes.leavePointer();
  }

  protected togglePeek(): void {
    const [id] = this.work.chosen();
    if (id !== undefined) this.outlets.togglePeek(id);
    else if (this.outlets.peek()) this.outlets.stopPeek();
    else this.work.refuse('Choose the node to peek at.');
  }

  protected toggleProbe(): void {
    this.panel.set(this.panel() === 'probe' ? 'about' : 'probe');
  }

  protected copy(event: ClipboardEvent, cut: boolean): void {
    copyNodes(event, this.work, cut);
  }

  protected paste(event: ClipboardEvent): void {
    pasteNodes(event, this.work, this.surface());
  }

  protected async restoreDeleted(): Promise<void> {
    await this.attempt(() => this.workbench.restoreDeleted());
  }

  protected async sendOut(wish: SendOutWish = 'material'): Promise<void> {
    this.codeWork.flush();
    await this.workbench.flush();
    await this.out.send(wish, this.id(), this.workbench);
  }

  protected async backToLibrary(event: Event): Promise<void> {
    event.preventDefault();
    this.codeWork.flush();
    await this.workbench.flush();
    await this.thumbnails.flush();
    await this.router.navigate(['/']);
  }

  protected key(event: KeyboardEvent): void {
    if (event.key === 'F4') {
      this.commandsShown.update((shown) => !shown);
      event.preventDefault();
      return;
    }
    if (inText(event)) return;
    const command = this.commands().find((each) => each.keys !== undefined && isKeys(event, each.keys));
    if (!command || command.unable?.()) return;
    event.preventDefault();
    command.run();
  }

  protected leaving(event: BeforeUnloadEvent): void {
    // Fields and the code tab hand over what is being written: it is in the journal, whatever the answer.
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
    this.codeWork.flush();
    if (this.workbench.unsaved > 0) event.preventDefault();
  }
}

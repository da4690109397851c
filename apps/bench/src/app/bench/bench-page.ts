import { ChangeDetectionStrategy, Component, effect, inject, input, untracked, ViewEncapsulation } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Workbench } from '../shared/documents/workbench';
import { NoticeList } from '../shared/notices/notice-list';
import { BenchBar } from './bar/bench-bar';
import { Toast } from './bar/toast';
import { CheckRunner } from './checks/check-runner';
import { SourceEditor } from './code/source-editor';
import { BudgetShelf } from './cost/budget-shelf';
import { CostWatch } from './cost/cost-watch';
import { MeasuredCosts } from './cost/measured-costs';
import { FieldPlaces } from './code/field-places';
import { FunctionBinding } from './code/function-binding';
import { BenchCommands } from './commands/bench-commands';
import { CommandList } from './commands/command-list';
import { KeysHelp } from './commands/keys-help';
import { Comparison } from './compare/comparison';
import { BenchResult } from './stage/bench-result';
import { Compiler } from './compile/compiler';
import { BenchOpener } from './bench-opener';
import { DocumentStore } from './documents/document-store';
import { SendOut } from './files/send-out';
import { copyNodes, pasteNodes } from './graph/node-clipboard';
import { GraphView } from './editors/graph-view';
import { GraphEditor } from './editors/graph-editor';
import { SurfaceBinding } from './editors/surface-binding';
import { Tidier } from './graph/tidier';
import { OpenFields } from './documents/open-fields';
import { OwnSurroundings } from './documents/own-surroundings';
import { Steps } from './documents/steps';
import { ImagePlacer } from './images/image-placer';
import { BenchLayout } from './layout/bench-layout';
import { BenchPlaces } from './layout/bench-places';
import { SplitEdge } from './layout/split-edge';
import { EnvironmentEditor } from './lights/environment-editor';
import { RigEditor } from './editors/rig-editor';
import { OutletInspector } from './looking/outlet-inspector';
import { Probes } from './looking/probes';
import { LinkedImages } from './maps/linked-images';
import { MapSetEditor } from './maps/map-set-editor';
import { PanelRow } from './page/panel-row';
import { FOLLOWERS, REGISTERED } from './registered';
import { AskedStills } from './stage/asked-stills';
import { StageFiles } from './stage/stage-files';
import { StageBinding } from './stage/stage-binding';
import { StillWork } from './stage/still-work';
import { ViewSettings } from './stage/view-settings';
import { StageMaterials } from './stage/stage-materials';
import { StageSide } from './page/stage-side';
import { ThumbnailKeeper } from './stage/thumbnail-keeper';
import { Workspace } from './page/workspace';

/** The Bench: one material with its set and light rig, its graph, its picture. Each part reads and edits the `DocumentStore` itself. */
@Component({
  selector: 'brelvin-bench-page',
  imports: [BenchBar, CommandList, KeysHelp, NoticeList, PanelRow, RouterLink, SplitEdge, StageSide, Toast, Workspace],
  providers: [
    ...REGISTERED,
    BenchCommands,
    BenchLayout,
    BenchOpener,
    BenchPlaces,
    BenchResult,
    BudgetShelf,
    CheckRunner,
    AskedStills,
    CostWatch,
    MeasuredCosts,
    SourceEditor,
    Comparison,
    Compiler,
    DocumentStore,
    EnvironmentEditor,
    FunctionBinding,
    GraphView,
    GraphEditor,
    ImagePlacer,
    LinkedImages,
    MapSetEditor,
    OutletInspector,
    FieldPlaces,
    OpenFields,
    OwnSurroundings,
    Probes,
    RigEditor,
    SendOut,
    StageFiles,
    StageBinding,
    StillWork,
    ViewSettings,
    StageMaterials,
    Steps,
    SurfaceBinding,
    ThumbnailKeeper,
    Tidier,
    Workbench,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './bench-page.css',
  host: {
    class: 'bench',
    '[class.bench-alone]': 'layout.alone()',
    '[style.--panels.px]': 'layout.panelsHeight()',
    '(document:keydown)': 'commands.press($event)',
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
  /** The same of a field, by its id. */
  readonly field = input<string>();

  /** The tab of the work area to begin with, from the address. */
  readonly show = input<string>();

  private readonly store = inject(DocumentStore);
  private readonly surface = inject(SurfaceBinding);
  private readonly editor = inject(GraphEditor);
  private readonly workbench = inject(Workbench);
  protected readonly commands = inject(BenchCommands);
  protected readonly layout = inject(BenchLayout);
  protected readonly opener = inject(BenchOpener);

  constructor() {
    for (const follower of FOLLOWERS) inject(follower);
    effect(() => {
      const id = this.id();
      untracked(() => void this.opener.open(id, { function: this.function(), field: this.field() }, this.show()));
    });
  }

  protected copy(event: ClipboardEvent, cut: boolean): void {
    copyNodes(event, this.editor, cut);
  }

  protected paste(event: ClipboardEvent): void {
    pasteNodes(event, this.editor, this.surface.actions());
  }

  protected leaving(event: BeforeUnloadEvent): void {
    // Fields and the code tab hand over what is being written: it is in the journal, whatever the answer.
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
    this.store.flushDrafts();
    if (this.workbench.unsaved > 0 || this.store.waits) event.preventDefault();
  }
}

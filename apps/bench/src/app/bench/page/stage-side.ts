import { ChangeDetectionStrategy, Component, computed, effect, inject, untracked, viewChild, ViewEncapsulation } from '@angular/core';
import { NoticeList } from '../../shared/notices/notice-list';
import { CompareBar } from '../compare/compare-bar';
import { CompareLine } from '../compare/compare-line';
import { CompareMenu } from '../compare/compare-menu';
import { Comparison } from '../compare/comparison';
import { BenchResult } from '../stage/bench-result';
import { Compiler } from '../compile/compiler';
import { DocumentStore } from '../documents/document-store';
import { BenchFiles } from '../files/bench-files';
import type { DocumentEdit } from '../documents/document-edit';
import { BenchLayout } from '../layout/bench-layout';
import { BenchPlaces } from '../layout/bench-places';
import { EnvironmentDrop } from '../lights/environment-drop';
import { OutletInspector } from '../looking/outlet-inspector';
import { PeekBar } from '../looking/peek-bar';
import { ProbePins } from '../looking/probe-pins';
import { Probes } from '../looking/probes';
import { MeshBar } from '../stage/mesh-bar';
import { Stage } from '../stage/stage';
import { StageFiles } from '../stage/stage-files';
import { StageBinding } from '../stage/stage-binding';
import { ViewSettings } from '../stage/view-settings';
import { StageMaterials } from '../stage/stage-materials';
import { ThumbnailKeeper } from '../stage/thumbnail-keeper';
import { ViewMenu, VIEW_WORDS } from '../stage/view-menu';

/** The Stage with all that belongs to it: what stands there, how it is looked at, what it is compared with. */
@Component({
  selector: 'brelvin-stage-side',
  imports: [CompareBar, CompareLine, CompareMenu, EnvironmentDrop, MeshBar, NoticeList, PeekBar, ProbePins, Stage, ViewMenu],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './stage-side.css',
  host: { class: 'contents' },
  templateUrl: './stage-side.html',
})
export class StageSide {
  private readonly compiler = inject(Compiler);
  private readonly materials = inject(StageMaterials);
  private readonly probes = inject(Probes);
  private readonly thumbnails = inject(ThumbnailKeeper);
  protected readonly compare = inject(Comparison);
  protected readonly files = inject(BenchFiles);
  protected readonly layout = inject(BenchLayout);
  protected readonly binding = inject(StageBinding);
  protected readonly loaders = inject(StageFiles).loaders;
  protected readonly settings = inject(ViewSettings);
  protected readonly outlets = inject(OutletInspector);
  protected readonly places = inject(BenchPlaces);
  protected readonly result = inject(BenchResult);
  protected readonly store = inject(DocumentStore);
  private readonly stage = viewChild(Stage);

  /** The mesh whose numbers the bar below the picture shows: of the chosen part, else the first. */
  protected readonly meshId = computed(() => {
    const meshes = this.store.set()?.meshes ?? {};
    const chosen = this.places.part()?.mesh;
    if (chosen !== undefined && Object.hasOwn(meshes, chosen)) return chosen;
    return Object.entries(meshes).sort(([, a], [, b]) => a.order - b.order)[0]?.[0] ?? '';
  });
  protected readonly mesh = computed(() => this.store.set()?.meshes[this.meshId()]);
  protected readonly compiling = computed(() => this.compiler.busy() || this.materials.opening());
  /** What the colours of a special view mean. */
  protected readonly viewLegend = computed(() => VIEW_WORDS[this.settings.inspection().view][1]);

  constructor() {
    effect(() => {
      const [stage, set, rig] = [this.stage(), this.store.set(), this.store.rig()];
      if (stage && set && rig && this.store.material())
        untracked(() => this.binding.show(stage.engine(), { id: this.store.setId(), set }, rig));
    });
    effect(() => {
      const set = this.store.set();
      if (set) untracked(() => void this.materials.dress(set));
    });
    effect(() => {
      const { materialId, setId, rigId } = this.store;
      this.thumbnails.follow({ material: materialId() ?? '', set: setId(), rig: rigId() });
    });
  }

  protected editSet({ edit, gesture }: DocumentEdit): void {
    this.store.edit('set', edit, gesture);
  }

  /** A press on the picture places a pin while values are read, and chooses a part otherwise. */
  protected press({ x, y }: { x: number; y: number }): void {
    const engine = this.binding.engine();
    if (engine && this.outlets.probing()) void this.probes.pin(engine, x, y);
    else this.places.part.set(engine?.pick(x, y));
  }

  protected point(place: { x: number; y: number } | undefined): void {
    const engine = this.binding.engine();
    if (!engine || !this.outlets.probing()) return;
    if (place) void this.probes.followPointer(engine, place.x, place.y);
    else this.probes.leavePointer();
  }
}

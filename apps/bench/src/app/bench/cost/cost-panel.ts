import { ChangeDetectionStrategy, Component, computed, DestroyRef, inject, signal, ViewEncapsulation } from '@angular/core';
import { NgComponentOutlet } from '@angular/common';
import type { Budget } from '@brelvin/contract';
import { titleOfNode, weightOfCost, type Cost, type CostPlace, type Movable, type PassTimes } from '@brelvin/core';
import { NumberField } from '../../shared/controls/number-field';
import { DocumentStore } from '../documents/document-store';
import { BenchContext } from '../editors/bench-context';
import { GraphEditor } from '../editors/graph-editor';
import { BenchPlaces } from '../layout/bench-places';
import { SourceEditor } from '../code/source-editor';
import { BudgetShelf } from './budget-shelf';
import { counted, msWords } from './cost-words';
import { CostWatch } from './cost-watch';
import { MeasuredCosts } from './measured-costs';

interface PartRow {
  readonly key: string;
  readonly title: string;
  readonly place?: CostPlace;
  readonly pixel: Cost;
  readonly vertex: Cost;
  /** Of the dearest, 0…1. */
  readonly share: number;
}

interface BoundRow {
  readonly what: keyof Budget;
  readonly label: string;
  readonly help: string;
  readonly first: number;
  readonly bound?: number;
  readonly spent?: number;
  readonly over: boolean;
}

const TIMED_BY: Readonly<Record<PassTimes['by'], string>> = {
  timestamps: 'by the device’s own clock.',
  waiting: 'by waiting for each pass, which takes a little longer than they do together.',
  difference: 'by leaving passes out: this device has no clock for them.',
};

/** Rows that are shown before all are asked for. */
const FEW = 8;

/** What the picture costs: estimated by node, measured by pass, how it grows, and what is allowed. */
@Component({
  selector: 'brelvin-cost-panel',
  imports: [NgComponentOutlet, NumberField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './cost-panel.css',
  templateUrl: './cost-panel.html',
  host: { class: 'panel-body cost-panel' },
})
export class CostPanel {
  protected readonly watch = inject(CostWatch);
  protected readonly measured = inject(MeasuredCosts);
  private readonly budgets = inject(BudgetShelf);
  private readonly places = inject(BenchPlaces);
  private readonly source = inject(SourceEditor);
  private readonly editor = inject(GraphEditor);
  private readonly store = inject(DocumentStore);
  private readonly context = inject(BenchContext);
  protected readonly all = signal(false);
  protected readonly counted = counted;
  protected readonly msWords = msWords;
  protected readonly timedBy = TIMED_BY;

  /** Why nothing can be said. */
  protected readonly refusal = computed(() => {
    const cost = this.watch.cost();
    return cost && 'problems' in cost ? cost.problems[0]?.message : undefined;
  });

  private readonly rows = computed((): readonly PartRow[] => {
    const cost = this.watch.estimate();
    if (!cost) return [];
    const rest = { place: undefined, ...cost.rest };
    const parts = [...cost.parts, rest].filter(({ pixel, vertex }) => weightOfCost(pixel) + weightOfCost(vertex) > 0);
    const most = Math.max(1, ...parts.map(({ pixel }) => weightOfCost(pixel)));
    return parts.map(({ place, pixel, vertex }) => ({
      ...this.named(place),
      pixel,
      vertex,
      share: weightOfCost(pixel) / most,
    }));
  });
  protected readonly shown = computed(() => (this.all() ? this.rows() : this.rows().slice(0, FEW)));
  protected readonly more = computed(() => Math.max(0, this.rows().length - FEW));

  protected readonly isCode = computed(() => this.editor.material().code !== undefined);
  /** Whether the material has anything computed at vertices. */
  protected readonly perVertex = computed(() => this.rows().some(({ place, vertex }) => place && vertex.instructions > 0));

  protected readonly movable = computed(() =>
    (this.watch.estimate()?.movable ?? []).map((found) => ({ ...found, title: this.titleOf(found.node) })),
  );

  protected readonly bounds = computed((): readonly BoundRow[] => {
    const budget = this.budgets.budget();
    const pixel = this.watch.estimate()?.pixel;
    const row = (what: keyof Budget, label: string, help: string, first: number, spent: number | undefined): BoundRow => {
      const bound = budget[what];
      return { what, label, help, first, bound, spent, over: bound !== undefined && spent !== undefined && spent > bound };
    };
    return [
      row('instructions', 'instructions', 'At each pixel, estimated, without shadows and occlusion', 2000, pixel?.instructions),
      row('reads', 'reads', 'Reads of images at each pixel, without shadows and occlusion', 16, pixel?.reads),
      row(
        'milliseconds',
        'ms at 1920 × 1080',
        'Of a whole picture, measured on this machine and turned to that size by its pixels',
        16,
        this.measured.atFullSize(),
      ),
    ];
  });

  /** Its library comes when it is first needed. */
  protected readonly chart = signal<typeof import('./growth-chart').GrowthChart | undefined>(undefined);

  constructor() {
    inject(DestroyRef).onDestroy(this.watch.look());
    if (this.measured.growth()) void this.loadChart();
  }

  protected async measureGrowth(): Promise<void> {
    await Promise.all([this.loadChart(), this.measured.measureGrowth()]);
  }

  private async loadChart(): Promise<void> {
    const { GrowthChart } = await import('./growth-chart');
    this.chart.set(GrowthChart);
  }

  protected show(place: CostPlace | undefined): void {
    if (!place) return;
    if ('node' in place) this.places.showNode(place.node);
    else {
      this.places.workspace.set('code');
      void this.source.showPlace({ path: place.text, range: this.rangeOf(place) });
    }
  }

  private rangeOf({ text, line }: Extract<CostPlace, { line: number }>): { from: number; to: number } {
    const lines = this.linesOf(text);
    const from = lines.slice(0, line - 1).reduce((sum, { length }) => sum + length + 1, 0);
    return { from, to: from + (lines[line - 1]?.length ?? 0) };
  }

  private linesOf(text: 'code' | 'vertices'): readonly string[] {
    const { code } = this.editor.material();
    return ((text === 'code' ? code?.text : code?.vertices) ?? '').split(/\r\n|\r|\n/);
  }

  protected mend({ mend }: Movable): void {
    if (mend) this.store.edit('material', mend);
  }

  protected bound(what: keyof Budget, bound: number | undefined): void {
    this.budgets.bound(what, bound);
  }

  private named(place: CostPlace | undefined): Pick<PartRow, 'key' | 'title' | 'place'> {
    if (!place) return { key: ' rest', title: 'around it: placing, adding up, fog' };
    if ('line' in place) {
      const words = this.linesOf(place.text)[place.line - 1]?.trim() ?? '';
      const where = place.text === 'vertices' ? `vertices, line ${place.line}` : `line ${place.line}`;
      return { key: `${place.text} ${place.line}`, title: `${where}: ${words}`, place };
    }
    const title = this.titleOf(place.node);
    return this.editor.resolved().nodes.has(place.node) ? { key: place.node, title, place } : { key: place.node, title };
  }

  /** What nodes take from the mesh by themselves is called by its kind. */
  private titleOf(path: string): string {
    const { resolved, material } = this.editor.typed();
    const found = resolved.nodes.get(path);
    if (found?.node) return titleOfNode(this.context.catalogue, material, found.node);
    const kind = this.context.catalogue.kinds.get(path.split('/').at(-1) ?? '');
    return kind ? `${kind.title}, of the mesh` : path;
  }
}

import { ChangeDetectionStrategy, Component, inject, ViewEncapsulation } from '@angular/core';
import { Icon } from '../../shared/icons/icon';
import { BenchCommands } from '../commands/bench-commands';
import { tidyGraph } from './graph-commands';
import { GraphEditor } from '../editors/graph-editor';
import { SurfaceBinding } from '../editors/surface-binding';
import { Tidier } from './tidier';

/** Beside the tab of the graph: which group is seen, and what is done often. */
@Component({
  selector: 'brelvin-graph-bar',
  imports: [Icon],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './graph-bar.css',
  host: { class: 'contents' },
  template: `
    @if (editor.trail().length > 0 || editor.field() !== undefined) {
      <nav class="trail" aria-label="Groups">
        @if (editor.field() !== undefined) {
          <button type="button" class="text-button" title="Back to the graph of the material" (click)="showMaterial()">material</button>
          <span aria-hidden="true">/</span>
          @if (editor.trail().length > 0) {
            <button type="button" class="text-button" (click)="editor.leave(0)">{{ editor.subject().name }}</button>
          } @else {
            <span>{{ editor.subject().name }}</span>
          }
        } @else {
          <button type="button" class="text-button" (click)="editor.leave(0)">surface</button>
        }
        @for (step of editor.trail(); track step.node; let index = $index) {
          <span aria-hidden="true">/</span>
          @if (index < editor.trail().length - 1) {
            <button type="button" class="text-button" (click)="editor.leave(index + 1)">{{ step.title }}</button>
          } @else {
            <span>{{ step.title }}</span>
          }
        }
      </nav>
    }
    <span class="flex-1"></span>
    <button
      type="button"
      class="bar-button"
      title="Find a node and add it. Typing on the graph does the same."
      (click)="surface.actions()?.openFinder()"
    >
      <brelvin-icon name="search" /> find…
    </button>
    @if (tidier.running()) {
      <button type="button" class="bar-button" title="Stop laying out; nothing changes" (click)="tidier.stop()">tidying … stop</button>
    } @else {
      <button type="button" class="bar-button" title="Lay the graph out in layers, or only the selection (Ctrl L)" (click)="tidy()">
        tidy
      </button>
    }
    <button type="button" class="bar-button" title="Show the whole graph (Home)" (click)="surface.actions()?.showAll()">
      <brelvin-icon name="frame" /> show all
    </button>
    <button type="button" class="bar-button" title="All commands (F4)" (click)="commands.listShown.set(true)">commands</button>
  `,
})
export class GraphBar {
  protected readonly commands = inject(BenchCommands);
  protected readonly surface = inject(SurfaceBinding);
  protected readonly tidier = inject(Tidier);
  protected readonly editor = inject(GraphEditor);

  protected showMaterial(): void {
    this.editor.showGraphOf(undefined);
    setTimeout(() => this.surface.actions()?.showAll());
  }

  protected async tidy(): Promise<void> {
    await tidyGraph(this.tidier, this.surface);
  }
}

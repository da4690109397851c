import { NgComponentOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, ViewEncapsulation } from '@angular/core';
import { Tabs } from '../../shared/controls/tabs';
import { NoticeList } from '../../shared/notices/notice-list';
import { DocumentStore } from '../documents/document-store';
import { BenchLayout } from '../layout/bench-layout';
import { BenchPlaces } from '../layout/bench-places';
import { StageFiles } from '../stage/stage-files';
import { shownView } from '../registry/entry-view';
import { WORKSPACES } from '../registry/workspace-entry';

/** The work area: its tabs, what they show, and the work that is under way. */
@Component({
  selector: 'brelvin-workspace',
  imports: [NgComponentOutlet, NoticeList, Tabs],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './workspace.css',
  host: { class: 'contents' },
  template: `
    <div class="graph-bar">
      <brelvin-tabs label="Workspace" [tabs]="tabs()" [(shown)]="places.workspace" />
      @if (entry()?.bar; as bar) {
        <ng-container *ngComponentOutlet="bar" />
      }
    </div>
    @if (!store.material()) {
      <p class="empty-hint">Opening …</p>
    } @else if (shown.view(); as view) {
      <ng-container *ngComponentOutlet="view" />
    } @else {
      <p class="empty-hint">{{ shown.waiting() }}</p>
    }
    @for (job of files.jobs(); track $index) {
      <div class="job" role="status">
        <span>{{ job.name }}: {{ job.doing }} …</span>
        <progress max="1" [value]="job.share" [attr.aria-label]="job.name"></progress>
        <button type="button" class="text-button" (click)="job.cancel()">Cancel</button>
      </div>
    }
    @if (!layout.alone()) {
      <brelvin-notice-list />
    }
  `,
})
export class Workspace {
  private readonly entries = inject(WORKSPACES);
  private readonly said = this.entries.map(({ id, tab }) => ({ id, said: tab() }));
  protected readonly files = inject(StageFiles);
  protected readonly layout = inject(BenchLayout);
  protected readonly places = inject(BenchPlaces);
  protected readonly store = inject(DocumentStore);

  protected readonly tabs = computed(() =>
    this.said.flatMap(({ id, said }) => {
      const words = said();
      return words ? [{ value: id, ...words }] : [];
    }),
  );
  protected readonly entry = computed(() => this.entries.find(({ id }) => id === this.places.workspace()));
  protected readonly shown = shownView(this.entry);
}

import { NgComponentOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  signal,
  untracked,
  type Type,
  ViewEncapsulation,
} from '@angular/core';
import { Tabs } from '../../shared/controls/tabs';
import { NoticeList } from '../../shared/notices/notice-list';
import { DocumentStore } from '../documents/document-store';
import { BenchLayout } from '../layout/bench-layout';
import { BenchPlaces } from '../layout/bench-places';
import { StageFiles } from '../stage/stage-files';
import { WORKSPACES, type WorkspaceEntry } from '../registry/workspace-entry';

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
    } @else if (view(); as shown) {
      <ng-container *ngComponentOutlet="shown" />
    } @else {
      <p class="empty-hint">{{ waiting() }}</p>
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
  /** Views that were loaded, by workspace; what could not be is said. */
  private readonly loaded = signal<ReadonlyMap<string, Type<unknown> | 'failed'>>(new Map());

  protected readonly tabs = computed(() =>
    this.said.flatMap(({ id, said }) => {
      const words = said();
      return words ? [{ value: id, ...words }] : [];
    }),
  );
  protected readonly entry = computed(() => this.entries.find(({ id }) => id === this.places.workspace()));
  protected readonly view = computed((): Type<unknown> | undefined => {
    const entry = this.entry();
    if (!entry || !('load' in entry.view)) return entry?.view as Type<unknown> | undefined;
    const loaded = this.loaded().get(entry.id);
    return loaded === 'failed' ? undefined : loaded;
  });
  protected readonly waiting = computed((): string => {
    const entry = this.entry();
    if (entry && this.loaded().get(entry.id) === 'failed') return NOT_LOADED;
    return entry && 'opens' in entry.view ? `Opening ${entry.view.opens} …` : '';
  });

  constructor() {
    effect(() => {
      const entry = this.entry();
      if (entry) untracked(() => void this.load(entry));
    });
  }

  private async load({ id, view }: WorkspaceEntry): Promise<void> {
    if (!('load' in view) || this.view()) return;
    const loaded = await view.load().catch(() => 'failed' as const);
    this.loaded.update((all) => new Map(all).set(id, loaded));
  }
}

const NOT_LOADED = 'This part of Brelvin could not be loaded: the server cannot be reached. Reload the page.';

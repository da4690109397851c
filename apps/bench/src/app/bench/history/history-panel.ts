import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked, ViewEncapsulation } from '@angular/core';
import { takeUntilDestroyed, toSignal } from '@angular/core/rxjs-interop';
import type { DocumentStep, NamedVersion } from '@brelvin/contract';
import { differenceOf, seenWith, type HistoryEntry } from '@brelvin/core';
import { filter } from 'rxjs';
import { DocumentApi } from '../../shared/api/document-api';
import { Choices, type Choice } from '../../shared/controls/choices';
import { LiveChannel } from '../../shared/documents/live-channel';
import { newId } from '../../shared/documents/new-id';
import { Workbench } from '../../shared/documents/workbench';
import { SourceEditor } from '../code/source-editor';
import { DocumentStore } from '../documents/document-store';
import { BenchPlaces } from '../layout/bench-places';

interface HistoryRow {
  readonly label: string;
  readonly document: string;
  /** How many steps are done when one goes there. */
  readonly done: number;
  readonly undone: boolean;
}

const HOLDS: readonly Choice<'material' | 'stage'>[] = [
  { value: 'material', words: 'the material', help: 'Restoring it leaves set and light rig as they are.' },
  { value: 'stage', words: 'all on the Stage', help: 'Also the set, the light rig, and the materials of the set’s parts.' },
];

/** Every step, to go to; and versions that were given a name. */
@Component({
  selector: 'brelvin-history-panel',
  imports: [Choices, DatePipe],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './history-panel.css',
  host: { class: 'panel-body history-panel' },
  template: `
    <ol class="history-steps" aria-label="Steps, newest first">
      @for (row of rows(); track row.done) {
        <li>
          <button
            type="button"
            class="history-step"
            [class.chosen]="row.done === done()"
            [class.history-undone]="row.undone"
            [attr.aria-current]="row.done === done() ? 'step' : null"
            (click)="workbench.jump(row.done)"
          >
            <span>{{ row.label }}</span> <span class="finder-family">{{ row.document }}</span>
          </button>
        </li>
      }
    </ol>
    <div class="history-versions">
      <form class="history-keep" (submit)="keep($event, name)">
        <input
          #name
          class="text-input"
          maxlength="120"
          aria-label="Name of the version"
          placeholder="before the fair"
          (keydown)="$event.stopPropagation()"
        />
        <button type="submit" class="choice-alone" title="Save the present state under a name">save version</button>
      </form>
      <brelvin-choices label="What the version holds" [options]="holds" [value]="held()" (chosen)="held.set($event)" />
      @for (version of versions(); track version.name) {
        <div class="history-version">
          <span>{{ version.name }}</span>
          <span class="finder-family"
            >{{ version.at | date: 'd MMM, HH:mm' }}, {{ version.beside ? 'all on the Stage' : 'the material' }}</span
          >
          <button
            type="button"
            class="text-button"
            [attr.aria-label]="'Restore ' + version.name"
            [title]="
              version.beside
                ? 'Makes the material, its set, light rig and other materials what they were; can be undone'
                : 'Makes the material what it was; set and light rig stay; can be undone'
            "
            (click)="restore(version)"
          >
            restore
          </button>
        </div>
      } @empty {
        <p class="hint">No versions yet. One with a name can be restored at any time.</p>
      }
      @if (words(); as text) {
        <p class="hint" role="status">{{ text }}</p>
      }
    </div>
  `,
})
export class HistoryPanel {
  private readonly code = inject(SourceEditor);
  private readonly places = inject(BenchPlaces);
  private readonly store = inject(DocumentStore);
  /** The material, or the function of the Library that is written. */
  private readonly documentId = computed(
    () => (this.places.workspace() === 'code' ? this.code.shownFunction() : undefined) ?? this.store.materialId() ?? '',
  );
  protected readonly workbench = inject(Workbench);
  private readonly api = inject(DocumentApi);
  private readonly history = toSignal(this.workbench.history, { requireSync: true });
  protected readonly versions = signal<readonly NamedVersion[]>([]);
  protected readonly words = signal<string | undefined>(undefined);
  protected readonly holds = HOLDS;
  protected readonly held = signal<'material' | 'stage'>('material');
  protected readonly done = computed(() => this.history().done.length);

  protected readonly rows = computed((): HistoryRow[] => {
    const { done, undone } = this.history();
    const row = ({ label, document }: HistoryEntry, count: number, taken: boolean): HistoryRow => ({
      label,
      document: this.workbench.document(document)?.name ?? '',
      done: count,
      undone: taken,
    });
    const ahead = undone.map((entry, index) => row(entry, done.length + undone.length - index, true));
    const behind = done.map((entry, index) => row(entry, index + 1, false)).reverse();
    return [...ahead, ...behind, { label: 'Start', document: '', done: 0, undone: false }].slice(0, MOST_SHOWN);
  });

  constructor() {
    effect(() => {
      const id = this.documentId();
      untracked(() => void this.load(id));
    });
    // Another window named one, or this one was away and may have missed it.
    inject(LiveChannel)
      .news.pipe(
        filter(({ id, named }) => id === undefined || (id === this.documentId() && named !== undefined)),
        takeUntilDestroyed(),
      )
      .subscribe(() => void this.load(this.documentId()));
  }

  protected async keep(event: Event, field: HTMLInputElement): Promise<void> {
    event.preventDefault();
    const name = field.value.trim();
    if (!name) return;
    await this.trying(async () => {
      const step = await this.workbench.savedStep(this.documentId());
      if (step === undefined) return;
      const beside = this.held() === 'stage' ? await this.stepsBeside() : undefined;
      await this.api.nameVersion(this.documentId(), { name, step, beside });
      field.value = '';
      await this.load(this.documentId());
    });
  }

  /** The set, the light rig and what the set's parts wear, as they are now. */
  private async stepsBeside(): Promise<DocumentStep[]> {
    const material = this.workbench.document(this.documentId());
    if (!material) return [];
    const seen = seenWith(material);
    const worn = seen.flatMap((id) => {
      const document = this.workbench.document(id);
      return document ? seenWith(document) : [];
    });
    const all = [...new Set([...seen, ...worn])].filter((id) => id !== this.documentId());
    const steps = await Promise.all(all.map(async (id) => ({ id, step: await this.workbench.savedStep(id) })));
    return steps.flatMap(({ id, step }) => (step === undefined ? [] : [{ id, step }]));
  }

  /** One more step that leads to where the version was: it can be taken back like every other, also where it is of several documents. */
  protected async restore({ name, step, beside = [] }: NamedVersion): Promise<void> {
    await this.trying(async () => {
      const gesture = newId();
      let changed = 0;
      for (const each of [...beside, { id: this.documentId(), step }]) {
        const present = await this.workbench.load(each.id);
        const { document } = await this.api.at(each.id, each.step);
        const changes = differenceOf(present, document);
        changed += changes.length;
        this.workbench.edit(each.id, { label: `Restore “${name}”`, changes }, gesture);
      }
      if (changed === 0) this.words.set(beside.length > 0 ? 'This is what stands there now.' : 'This is what the material looks like now.');
    });
  }

  private async load(id: string): Promise<void> {
    await this.trying(async () => this.versions.set((await this.api.versions(id)).versions));
  }

  private async trying(job: () => Promise<void>): Promise<void> {
    this.words.set(undefined);
    try {
      await job();
    } catch (error) {
      this.words.set(error instanceof Error ? error.message : String(error));
    }
  }
}

const MOST_SHOWN = 500;

import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, signal, ViewEncapsulation } from '@angular/core';
import type { NamedVersion } from '@brelvin/contract';
import { DocumentApi } from '../../shared/api/document-api';
import { Icon } from '../../shared/icons/icon';
import { Comparison, type CompareWith } from './comparison';
import { DocumentStore } from '../documents/document-store';
import { GraphEditor } from '../editors/graph-editor';
import { DocumentSource } from '../../shared/picking/document-source';
import { Picker } from '../../shared/picking/picker';
import { BenchLayout } from '../layout/bench-layout';
import { Popover } from '../../shared/controls/popover';

interface Choice {
  readonly key: string;
  readonly name: string;
  readonly with: CompareWith;
}
interface Offer {
  readonly label: string;
  readonly empty: string;
  readonly choices: readonly Choice[];
}

/** Chooses what the picture is compared with. */
@Component({
  selector: 'brelvin-compare-menu',
  imports: [Icon, Picker, Popover],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './compare-menu.css',
  template: `
    <button
      type="button"
      class="bar-button"
      aria-haspopup="dialog"
      [attr.aria-expanded]="open()"
      title="Two pictures at once: another material, a version, another light rig, another value of a parameter"
      (click)="toggle()"
    >
      compare <brelvin-icon name="down" />
    </button>
    <brelvin-popover label="Compare" look="compare-panel" [anchor]="anchor()" place="left of the stage" [(open)]="open">
      <ng-template>
        <span class="field-label">Another light rig</span>
        <brelvin-picker
          name="choose …"
          [source]="rigs"
          [current]="editor.material().seenIn.rig"
          [leftOf]="layout.stageLeft()"
          (chosen)="use({ kind: 'rig', id: $event.id, name: $event.name })"
        />
        <span class="field-label">Another material</span>
        <brelvin-picker
          name="choose …"
          [source]="materials"
          [current]="store.materialId()"
          [leftOf]="layout.stageLeft()"
          (chosen)="use({ kind: 'material', id: $event.id, name: $event.name })"
        />
        @for (offer of offers(); track offer.label) {
          <span class="field-label">{{ offer.label }}</span>
          @if (offer.choices.length > 0) {
            <div class="compare-choices">
              @for (choice of offer.choices; track choice.key) {
                <button
                  type="button"
                  class="mesh-choice"
                  [attr.aria-current]="compare.with() === choice.with ? 'true' : null"
                  (click)="use(choice.with)"
                >
                  {{ choice.name }}
                </button>
              }
            </div>
          } @else {
            <span class="hint">{{ offer.empty }}</span>
          }
        }
        @if (refusal(); as words) {
          <p class="hint refusal" role="alert">{{ words }}</p>
        }
      </ng-template>
    </brelvin-popover>
  `,
})
export class CompareMenu {
  protected readonly compare = inject(Comparison);
  private readonly api = inject(DocumentApi);
  private readonly documents = inject(DocumentSource);
  protected readonly rigs = this.documents.of('rig');
  protected readonly materials = this.documents.of('material');
  protected readonly editor = inject(GraphEditor);
  protected readonly layout = inject(BenchLayout);
  protected readonly store = inject(DocumentStore);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  protected readonly open = signal(false);
  private readonly unread = signal<string | undefined>(undefined);
  protected readonly refusal = computed(() => this.unread() ?? this.compare.refusal());
  private readonly versions = signal<readonly NamedVersion[]>([]);

  protected readonly offers = computed((): Offer[] => {
    const { parameters } = this.editor.material();
    const inOrder = Object.entries(parameters).sort(([, a], [, b]) => a.order - b.order);
    return [
      {
        label: 'A version',
        empty: 'None is saved yet: history, “save version”.',
        choices: this.versions().map(({ name, step }) => ({ key: name, name, with: { kind: 'version', step, name } })),
      },
      {
        label: 'Another value of',
        empty: 'This material has no parameters.',
        choices: inOrder.map(([id, { name, value }]) => ({ key: id, name, with: { kind: 'parameter', id, name, value } })),
      },
    ];
  });

  /** The left end of the bar: the panel stands beside the Stage, never over it. */
  protected anchor(): HTMLElement {
    return this.host.nativeElement.parentElement ?? this.host.nativeElement;
  }

  protected async toggle(): Promise<void> {
    this.open.set(!this.open());
    if (!this.open()) return;
    this.unread.set(undefined);
    try {
      const { versions } = await this.api.versions(this.store.materialId() ?? '');
      this.versions.set(versions);
    } catch (error) {
      this.unread.set(error instanceof Error ? error.message : String(error));
    }
  }

  protected async use(wanted: CompareWith): Promise<void> {
    await this.compare.compareWith(wanted);
    if (!this.compare.refusal()) this.open.set(false);
  }
}

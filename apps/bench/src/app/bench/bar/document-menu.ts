import { CdkMenu, CdkMenuItem, CdkMenuTrigger } from '@angular/cdk/menu';
import type { ConnectedPosition } from '@angular/cdk/overlay';
import { ChangeDetectionStrategy, Component, computed, ElementRef, inject, input, output, signal, viewChild } from '@angular/core';
import { type DocumentKind, type DocumentSummary } from '@brelvin/contract';
import { DocumentApi } from '../../shared/api/document-api';
import { Icon } from '../../shared/icons/icon';

/** Chooses a set or light rig by name. */
@Component({
  selector: 'brelvin-document-menu',
  imports: [CdkMenu, CdkMenuItem, CdkMenuTrigger, Icon],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button
      type="button"
      class="bar-button"
      [cdkMenuTriggerFor]="menu"
      #trigger="cdkMenuTriggerFor"
      (keydown.escape)="trigger.close()"
      [cdkMenuPosition]="position()"
      (cdkMenuOpened)="load()"
      (pointerenter)="measure()"
      (focus)="measure()"
      [title]="'Choose another ' + word()"
    >
      <span class="field-label">{{ word() }}</span> {{ name() }} <brelvin-icon name="down" />
    </button>
    <ng-template #menu>
      <div class="popover menu" cdkMenu>
        @for (entry of entries(); track entry.id) {
          <button
            type="button"
            class="menu-item"
            cdkMenuItem
            [class.chosen]="entry.id === current()"
            (cdkMenuItemTriggered)="chosen.emit(entry.id)"
          >
            {{ entry.name }}
          </button>
        } @empty {
          <p class="hint px-2">{{ failed() ?? 'Looking …' }}</p>
        }
      </div>
    </ng-template>
  `,
})
export class DocumentMenu {
  readonly kind = input.required<DocumentKind>();
  readonly word = input.required<string>();
  readonly name = input.required<string>();
  readonly current = input<string>();
  /** The menu keeps left of this, in CSS pixels of the window, so that it covers no picture. */
  readonly leftOf = input(Infinity);
  readonly chosen = output<string>();

  private readonly api = inject(DocumentApi);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly list = viewChild(CdkMenu);
  private readonly left = signal(0);
  protected readonly entries = signal<readonly DocumentSummary[]>([]);
  protected readonly failed = signal<string | undefined>(undefined);
  protected readonly position = computed((): ConnectedPosition[] => [
    { originX: 'start', originY: 'bottom', overlayX: 'end', overlayY: 'top', offsetX: Math.min(this.leftOf() - this.left(), 0) },
  ]);

  protected measure(): void {
    this.left.set(this.host.nativeElement.getBoundingClientRect().left);
  }

  protected async load(): Promise<void> {
    try {
      const { documents } = await this.api.list(this.kind(), { limit: 200 });
      this.entries.set(documents);
      this.failed.set(undefined);
      // What was not there when the menu opened could not be given the focus.
      setTimeout(() => this.list()?.focusFirstItem('keyboard'));
    } catch (error) {
      this.failed.set(error instanceof Error ? error.message : String(error));
    }
  }
}

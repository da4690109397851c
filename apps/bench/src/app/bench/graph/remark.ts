import {
  afterRenderEffect,
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  output,
  viewChild,
  ViewEncapsulation,
} from '@angular/core';
import type { Area, Note } from '@brelvin/contract';
import { GraphEditor } from '../editors/graph-editor';

/** An area behind the nodes, with a title; or a note. */
@Component({
  selector: 'brelvin-remark',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './remark.css',
  host: {
    '[class]': "note() ? 'remark note' : 'remark area'",
    '[class.remark-selected]': 'selected()',
    '[style.left.px]': 'box()?.x',
    '[style.top.px]': 'box()?.y',
    '[style.width.px]': 'box()?.width',
    '[style.height.px]': 'box()?.height',
  },
  template: `
    @if (area(); as found) {
      <div
        class="remark-title"
        tabindex="0"
        role="group"
        [attr.data-remark]="id()"
        [attr.aria-label]="'Area ' + found.title + (selected() ? ', selected' : '')"
      >
        @if (naming()) {
          <input
            #field
            class="text-input"
            aria-label="Title of the area"
            maxlength="120"
            [value]="found.title"
            (pointerdown)="$event.stopPropagation()"
            (keydown)="key($event)"
            (blur)="finish()"
          />
        } @else {
          {{ found.title || 'Area' }}
        }
      </div>
    }
    @if (note(); as found) {
      <div class="note-text" tabindex="0" role="note" [attr.data-remark]="id()">
        @if (naming()) {
          <textarea
            #field
            class="text-input"
            aria-label="Note"
            maxlength="10000"
            [value]="found.text"
            (pointerdown)="$event.stopPropagation()"
            (wheel)="$event.stopPropagation()"
            (keydown)="key($event)"
            (blur)="finish()"
          ></textarea>
        } @else {
          {{ found.text || 'Double-click to write.' }}
        }
      </div>
    }
    <span class="remark-corner" [attr.data-resize]="id()" title="Drag to make it larger or smaller"></span>
  `,
})
export class Remark {
  readonly id = input.required<string>();
  readonly area = input<Area>();
  readonly note = input<Note>();
  readonly selected = input(false);
  readonly naming = input(false);
  readonly named = output<void>();

  private readonly editor = inject(GraphEditor);
  private readonly field = viewChild<ElementRef<HTMLInputElement | HTMLTextAreaElement>>('field');
  protected readonly box = computed(() => this.area() ?? this.note());

  constructor() {
    afterRenderEffect(() => {
      const field = this.field()?.nativeElement;
      if (!field || document.activeElement === field) return;
      field.focus();
      field.select();
    });
  }

  protected key(event: KeyboardEvent): void {
    event.stopPropagation();
    if (event.key === 'Escape' || (event.key === 'Enter' && (this.area() || event.ctrlKey))) (event.target as HTMLElement).blur();
  }

  protected finish(): void {
    const words = this.field()?.nativeElement.value ?? '';
    const { edits } = this.editor.typed();
    const [area, note] = [this.area(), this.note()];
    if (area && words !== area.title) this.editor.do(edits.putArea(this.id(), { ...area, title: words }, 'Title an area'));
    if (note && words !== note.text) this.editor.do(edits.putNote(this.id(), { ...note, text: words }, 'Write a note'));
    this.named.emit();
  }
}

import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import type { StageSet } from '@brelvin/contract';
import { nextOrder, partNames, putRule, ruleFits, type Edit } from '@brelvin/core';
import { newId } from '../../shared/documents/new-id';
import { DocumentSource } from '../../shared/picking/document-source';
import { Picker } from '../../shared/picking/picker';
import type { PickerEntry } from '../../shared/picking/picker-source';

const BENCH: PickerEntry = { id: '', name: 'the material on the Bench' };
const MOST_NAMED = 4;

/** Gives a material to every part whose name matches, of one mesh or of all. */
@Component({
  selector: 'brelvin-rule-by-name',
  imports: [Picker],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'parts-by-name' },
  template: `
    <label class="field-label" for="rule-pattern" title="Names between commas; * stands for any letters, alone for every part">
      Material by part name
    </label>
    <input
      id="rule-pattern"
      #rule
      class="text-input parts-pattern"
      placeholder="eyes, *wall"
      [value]="pattern()"
      (input)="pattern.set(rule.value)"
      (keydown.enter)="add()"
      (keydown)="$event.stopPropagation()"
    />
    <select #of class="text-input" aria-label="Of which mesh" (change)="mesh.set(of.value)">
      <option value="" [selected]="mesh() === ''">of all meshes</option>
      @for (each of meshes(); track each.id) {
        <option [value]="each.id" [selected]="mesh() === each.id">of {{ each.name }}</option>
      }
    </select>
    <brelvin-picker
      [source]="materials"
      [name]="material().name"
      [current]="material().id"
      [extra]="[bench]"
      (chosen)="material.set($event)"
    />
    <button type="button" class="bar-button" [disabled]="!wanted()" (click)="add()">add</button>
    @if (wanted()) {
      <span class="hint" role="status">{{ matched() }}</span>
    }
  `,
})
export class RuleByName {
  readonly set = input.required<StageSet>();
  readonly materialId = input.required<string>();
  readonly edited = output<{ edit: Edit }>();

  protected readonly materials = inject(DocumentSource).of('material');
  protected readonly bench = BENCH;
  protected readonly pattern = signal('');
  protected readonly mesh = signal('');
  protected readonly material = signal<PickerEntry>(BENCH);
  protected readonly wanted = computed(() => this.pattern().trim());
  protected readonly meshes = computed(() =>
    Object.entries(this.set().meshes)
      .sort(([, a], [, b]) => a.order - b.order)
      .map(([id, { name }]) => ({ id, name })),
  );
  /** Which parts the pattern is about, in words. */
  protected readonly matched = computed(() => {
    const rule = this.rule();
    const found = Object.entries(this.set().meshes).flatMap(([id, mesh]) => partNames(mesh).filter((part) => ruleFits(rule, id, part)));
    if (found.length === 0) return 'No part is called that, as yet.';
    const more = found.length > MOST_NAMED ? ` and ${found.length - MOST_NAMED} more` : '';
    return `${found.length === 1 ? '1 part' : `${found.length} parts`}: ${found.slice(0, MOST_NAMED).join(', ')}${more}`;
  });

  protected add(): void {
    if (!this.wanted()) return;
    const order = nextOrder(this.set().partRules);
    const material = this.material().id || this.materialId();
    this.edited.emit({ edit: putRule(newId(), { ...this.rule(), order, material, values: {} }) });
    this.pattern.set('');
  }

  private rule(): { pattern: string; mesh?: string } {
    return { pattern: this.wanted(), ...(this.mesh() ? { mesh: this.mesh() } : {}) };
  }
}

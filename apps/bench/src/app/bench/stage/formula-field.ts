import { ChangeDetectionStrategy, Component, computed, inject, input, output, ViewEncapsulation } from '@angular/core';
import type { SetMesh } from '@brelvin/contract';
import { MESH_SHAPES } from '@brelvin/core';
import { StageBinding } from './stage-binding';

let fields = 0;

/** The formula of a mesh that is typed: what it is about, its text, and what is wrong with it. */
@Component({
  selector: 'brelvin-formula-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './formula-field.css',
  host: { class: 'contents' },
  template: `
    <label class="field-label" [for]="id" title="As in shading code, with all functions of the library; statements end in return">
      {{ mesh().shape === 'height' ? 'y of x, z' : 'position of u, v' }}
    </label>
    <span>
      <textarea
        #text
        class="text-input formula"
        rows="3"
        spellcheck="false"
        maxlength="4000"
        [id]="id"
        [value]="formula()"
        [attr.aria-invalid]="problem() ? true : null"
        (input)="typed.emit(text.value)"
        (keydown)="$event.stopPropagation()"
      ></textarea>
      @if (problem(); as words) {
        <p class="formula-problem" role="alert">{{ words }}</p>
      }
    </span>
  `,
})
export class FormulaField {
  readonly meshId = input.required<string>();
  readonly mesh = input.required<SetMesh>();
  readonly typed = output<string>();

  protected readonly id = `formula-${++fields}`;
  private readonly stage = inject(StageBinding);
  protected readonly formula = computed(() => this.mesh().formula ?? MESH_SHAPES[this.mesh().shape].formula ?? '');
  protected readonly problem = computed(() => this.stage.state()?.formulas.find(({ mesh }) => mesh === this.meshId())?.message);
}

import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import type { CompareView } from '@brelvin/core';
import { Choices, type Choice } from '../../shared/controls/choices';
import { NumberField } from '../../shared/controls/number-field';
import { Icon } from '../../shared/icons/icon';
import { GraphEditor } from '../editors/graph-editor';
import type { StageState } from '../stage/stage-state';
import { ValueControl } from '../values/value-control';
import { specOfParameter } from '../values/value-spec';
import { counted } from '../cost/cost-words';
import { ComparedCosts } from './compared-costs';
import { Comparison } from './comparison';

const MODES: readonly Choice<CompareView['mode']>[] = [
  { value: 'beside', help: 'Both beside each other, seen by one camera' },
  { value: 'wipe', help: 'One over the other; drag the line between them' },
  { value: 'difference', help: 'How far they are apart: black where they are alike' },
];

/** How two pictures are shown, how far they are apart, and what each costs. */
@Component({
  selector: 'brelvin-compare-bar',
  imports: [Choices, Icon, NumberField, ValueControl],
  changeDetection: ChangeDetectionStrategy.OnPush,
  providers: [ComparedCosts],
  host: { class: 'compare-bar', role: 'group', 'aria-label': 'Compare' },
  template: `
    <span class="compare-row">
      <brelvin-choices
        label="How two pictures are shown"
        [options]="modes"
        [value]="compare.view().mode"
        (chosen)="compare.show({ mode: $event })"
      />
      @if (compare.view().mode === 'difference') {
        <brelvin-number
          label="Difference times"
          help="Small differences are seen better multiplied."
          [value]="compare.view().gain"
          [range]="{ low: 1, high: 64 }"
          suffix=" ×"
          (changed)="compare.show({ gain: $event.value })"
          (resetAsked)="compare.show({ gain: 4 })"
        />
      }
      @if (parameter(); as held) {
        <brelvin-value
          [spec]="held.spec"
          [value]="held.value"
          (changed)="compare.setValue($event.value)"
          (resetAsked)="compare.setValue(held.first)"
        />
      }
      <span class="flex-1"></span>
      <button type="button" class="text-button" title="One picture again" aria-label="Stop comparing" (click)="compare.stop()">
        <brelvin-icon name="close" />
      </button>
    </span>
    <span
      class="compare-row compare-numbers"
      role="status"
      title="Mean and largest difference of a channel, the part of the picture that differs, how long each picture took to draw, and what its material asks for at each pixel at most"
      >{{ numbers() }}</span
    >
  `,
})
export class CompareBar {
  readonly result = input<StageState['compared']>();

  protected readonly compare = inject(Comparison);
  private readonly spent = inject(ComparedCosts);
  private readonly editor = inject(GraphEditor);
  protected readonly modes = MODES;

  protected readonly parameter = computed(() => {
    const wanted = this.compare.with();
    const parameter = wanted?.kind === 'parameter' ? this.editor.material().parameters[wanted.id] : undefined;
    if (wanted?.kind !== 'parameter' || !parameter) return undefined;
    const spec = { ...specOfParameter(parameter), label: `${parameter.name} in the second picture` };
    return { spec, value: wanted.value, first: parameter.value };
  });

  protected readonly numbers = computed((): string => {
    const result = this.result();
    if (!result?.difference) return 'Drawing both …';
    const { mean, largest, share } = result.difference;
    const apart = largest === 0 ? 'no difference' : `apart ${short(mean)} of 255, at most ${largest}, over ${short(share * 100)} %`;
    const [first = 0, second = 0] = result.costs;
    const [spent, other] = this.spent.costs() ?? [];
    const counts = spent && other ? ` · ${counted(spent.instructions)} and ${counted(other.instructions)} instructions` : '';
    const reads = spent && other && spent.reads + other.reads > 0 ? `, ${spent.reads} and ${other.reads} reads` : '';
    return `${apart} · ${Math.round(first)} and ${Math.round(second)} ms${counts}${reads}`;
  });
}

function short(value: number): string {
  return value >= 10 ? `${Math.round(value)}` : `${Math.round(value * 100) / 100}`;
}

import { ChangeDetectionStrategy, Component, computed, inject, ViewEncapsulation } from '@angular/core';
import { StageBinding } from '../stage/stage-binding';
import { Probes } from './probes';

/** Where the pins stand, drawn over the picture. */
@Component({
  selector: 'brelvin-probe-pins',
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './probe-pins.css',
  host: { class: 'probe-pins', 'aria-hidden': 'true' },
  template: `
    @for (mark of marks(); track mark.number) {
      <span class="probe-mark" [class.probe-mark-hidden]="mark.hidden" [style.left.px]="mark.x" [style.top.px]="mark.y"
        ><span class="pin-number">{{ mark.number }}</span></span
      >
    }
  `,
})
export class ProbePins {
  private readonly probes = inject(Probes);
  private readonly binding = inject(StageBinding);

  protected readonly marks = computed(() => {
    // Where a point is seen changes with the camera.
    this.binding.camera();
    this.binding.state();
    return this.probes.pins().flatMap(({ number, position, hidden }) => {
      const at = this.binding.engine()?.placeOf(position);
      return at ? [{ number, hidden, ...at }] : [];
    });
  });
}

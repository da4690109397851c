import { ChangeDetectionStrategy, Component, computed, inject, input, ViewEncapsulation } from '@angular/core';
import type { GroupPort, InletValue } from '@brelvin/contract';
import { describeGroup, removePort, runForEachLight, setPort, titleGroup } from '@brelvin/core';
import { Icon } from '../../shared/icons/icon';
import { portsInOrder } from '../editors/placed-graph';
import { ValueControl } from '../values/value-control';
import type { ValueSpec } from '../values/value-spec';
import { GraphEditor } from '../editors/graph-editor';

type Side = 'inlets' | 'outlets';

/** The group that is open: its title, what it is for, its inlets and outlets. */
@Component({
  selector: 'brelvin-group-panel',
  imports: [Icon, ValueControl],
  changeDetection: ChangeDetectionStrategy.OnPush,
  encapsulation: ViewEncapsulation.None,
  styleUrl: './group-panel.css',
  template: `
    <div class="group-panel">
      <label class="field-label" for="group-title">Group</label>
      <input
        id="group-title"
        #title
        class="text-input"
        maxlength="120"
        [value]="definition()?.title ?? ''"
        (change)="retitle(title)"
        (keydown)="$event.stopPropagation()"
      />
      <label class="field-label" for="group-help">What it does</label>
      <input
        id="group-help"
        #help
        class="text-input"
        maxlength="1000"
        placeholder="One line for those who use it"
        [value]="definition()?.help ?? ''"
        (change)="describe(help.value)"
        (keydown)="$event.stopPropagation()"
      />
      <span class="field-label">Computed</span>
      <button
        type="button"
        class="choice-alone"
        [attr.aria-pressed]="eachLight()"
        title="Inside, “This light” is the light whose turn it is. What leaves the group is the sum over all lights."
        (click)="forEachLight(!eachLight())"
      >
        once for each light, summed
      </button>
      @for (side of sides; track side) {
        <span class="field-label">{{ side === 'inlets' ? 'Inlets' : 'Outlets' }}</span>
        <div class="group-ports">
          @for (port of ports()[side]; track port[0]) {
            <span class="group-port">
              <input
                #label
                class="text-input"
                maxlength="120"
                [attr.aria-label]="'Name of ' + port[1].label"
                [value]="port[1].label"
                (change)="relabel(side, port[0], label.value, port[1])"
                (keydown)="$event.stopPropagation()"
              />
              @if (side === 'inlets' && canStand(port[1])) {
                @if (port[1].value === undefined) {
                  <button
                    type="button"
                    class="text-button"
                    [attr.aria-label]="'Give ' + port[1].label + ' a value'"
                    title="While it is open, the nodes inside use their own values. Press to set one value for all."
                    (click)="setValue(port[0], port[1], start(port[1]))"
                  >
                    as inside
                  </button>
                } @else {
                  <brelvin-value
                    [spec]="specOf(port[1])"
                    [value]="numbers(port[1])"
                    (changed)="setValue(port[0], port[1], $event.value, $event.gesture)"
                    (resetAsked)="setValue(port[0], port[1], start(port[1]))"
                  />
                  <button
                    type="button"
                    class="text-button"
                    [attr.aria-label]="'Let ' + port[1].label + ' be as inside'"
                    title="Back to the values of the nodes inside"
                    (click)="setValue(port[0], port[1], undefined)"
                  >
                    free
                  </button>
                }
              }
              <button
                type="button"
                class="text-button"
                [attr.aria-label]="'Move ' + port[1].label + ' up'"
                title="Move up"
                (click)="raise(side, port[0])"
              >
                up
              </button>
              <button
                type="button"
                class="text-button"
                [attr.aria-label]="'Remove ' + port[1].label"
                title="Remove it, with its ribbons"
                (click)="remove(side, port[0])"
              >
                <brelvin-icon name="close" />
              </button>
            </span>
          } @empty {
            <span class="hint">Set a ribbon down at the {{ side === 'inlets' ? 'left' : 'right' }} edge’s + to make one.</span>
          }
        </div>
      }
    </div>
  `,
})
export class GroupPanel {
  readonly group = input.required<string>();

  private readonly editor = inject(GraphEditor);
  protected readonly sides: readonly Side[] = ['inlets', 'outlets'];
  protected readonly definition = computed(() => this.editor.subject().groups[this.group()]);
  protected readonly ports = computed(() => ({
    inlets: portsInOrder(this.definition()?.inlets ?? {}),
    outlets: portsInOrder(this.definition()?.outlets ?? {}),
  }));

  protected readonly eachLight = computed(() => this.definition()?.eachLight ?? false);

  protected retitle(field: HTMLInputElement): void {
    const title = field.value.trim();
    if (title) this.editor.do(titleGroup(this.group(), title));
    else field.value = this.definition()?.title ?? '';
  }

  protected describe(help: string): void {
    this.editor.do(describeGroup(this.group(), help.trim()));
  }

  protected forEachLight(each: boolean): void {
    this.editor.do(runForEachLight(this.group(), each));
  }

  protected relabel(side: Side, name: string, label: string, port: GroupPort): void {
    this.editor.do(setPort(this.group(), side, name, 'label', label.trim() || port.label));
  }

  /** Whether an inlet can have a value of its own when nothing runs in. */
  protected canStand({ type }: GroupPort): boolean {
    return type === 'number' || type === 'colour';
  }

  /** What an inlet is given at first. */
  protected start({ type, low = 0, high = 1 }: GroupPort): InletValue {
    return type === 'colour' ? [0.5, 0.5, 0.5] : (low + high) / 2;
  }

  protected specOf({ label, type, low, high }: GroupPort): ValueSpec {
    const help = 'What the inlet gives when nothing runs into it.';
    return { kind: type === 'colour' ? 'colour' : 'number', label: `${label} when open`, help, range: { low, high } };
  }

  protected numbers({ value = 0 }: GroupPort): readonly number[] {
    return typeof value === 'number' ? [value] : value;
  }

  protected setValue(name: string, { label }: GroupPort, value: InletValue | undefined, gesture?: string): void {
    const { changes } = setPort(this.group(), 'inlets', name, 'value', value);
    this.editor.do({ label: `Set ${label} when open`, changes }, gesture);
  }

  /** Changes places with the one above. */
  protected raise(side: Side, name: string): void {
    const ports = this.ports()[side];
    const index = ports.findIndex(([each]) => each === name);
    const above = ports[index - 1];
    if (!above) return;
    const changes = [setPort(this.group(), side, name, 'order', index - 1), setPort(this.group(), side, above[0], 'order', index)];
    this.editor.do({ label: 'Order a group', changes: changes.flatMap((edit) => edit.changes) });
  }

  protected remove(side: Side, name: string): void {
    this.editor.do(removePort(this.editor.subject(), this.group(), side, name));
  }
}

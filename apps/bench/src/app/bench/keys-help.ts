import { CdkTrapFocus } from '@angular/cdk/a11y';
import { ChangeDetectionStrategy, Component, output } from '@angular/core';

const KEYS: readonly (readonly [string, string])[] = [
  ['letters', 'on the graph: find a node'],
  ['Delete', 'remove what is selected'],
  ['Home', 'show the whole graph'],
  ['arrows', 'move the selected nodes; with none selected, the graph'],
  ['Tab, Enter', 'go from port to port; take a ribbon up, set it down'],
  ['Escape', 'let go, deselect, close'],
  ['Ctrl Z', 'undo'],
  ['Ctrl Shift Z', 'redo'],
  ['F', 'on the Stage: frame the mesh'],
  ['arrows', 'on the Stage: orbit; + and − move closer and away'],
  ['F6', 'see on the mesh what the selected node gives, and back'],
  ['F7', 'read the values of all nodes at points of the picture, and stop'],
  ['F8', 'the special view that was used last, and back'],
  ['F9', 'the picture alone in the whole window, and back'],
  ['Alt M', 'in code: mend what is nearest to the cursor'],
  ['Alt N', 'in code: go to the next thing that is wrong'],
  ['Alt G', 'in code: show where the name under the cursor is written; so does Ctrl and a click'],
  ['Alt R', 'in code: give the name under the cursor another one'],
  ['Ctrl Space', 'in code: what can be written here'],
  ['Ctrl F', 'in code: search, and replace'],
  ['?', 'this list'],
];

@Component({
  selector: 'brelvin-keys-help',
  imports: [CdkTrapFocus],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div
      class="popover keys-help"
      role="dialog"
      aria-label="Keys"
      cdkTrapFocus
      [cdkTrapFocusAutoCapture]="true"
      (keydown.escape)="closed.emit()"
    >
      <dl>
        @for (key of keys; track $index) {
          <dt>
            <kbd>{{ key[0] }}</kbd>
          </dt>
          <dd>{{ key[1] }}</dd>
        }
      </dl>
      <button type="button" class="bar-button" (click)="closed.emit()">Close</button>
    </div>
  `,
})
export class KeysHelp {
  readonly closed = output<void>();
  protected readonly keys = KEYS;
}

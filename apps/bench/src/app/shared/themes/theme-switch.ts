import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { Choices } from '../controls/choices';
import { THEMES, Themes } from './themes';

@Component({
  selector: 'brelvin-theme-switch',
  imports: [Choices],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <brelvin-choices
      label="Room: the grey around the picture"
      [options]="all"
      [value]="themes.current()"
      (chosen)="themes.choose($event)"
    />
  `,
})
export class ThemeSwitch {
  protected readonly themes = inject(Themes);
  protected readonly all = THEMES.map(({ id, label }) => ({ value: id, words: label, help: `Work in the ${label.toLowerCase()} room` }));
}

import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterOutlet } from '@angular/router';
import { droppedFiles } from './shared/files/dropped-files';
import { FileDrops } from './shared/files/file-drops';
import { Themes } from './shared/themes/themes';

@Component({
  selector: 'brelvin-app',
  imports: [RouterOutlet],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(document:dragover)': 'over($event)', '(document:drop)': 'drop($event)' },
  template: '<router-outlet />',
})
export class App {
  private readonly drops = inject(FileDrops);

  constructor() {
    inject(Themes).restore();
  }

  /** Files are never opened in the place of the page, wherever they are dropped. */
  protected over(event: DragEvent): void {
    if (event.dataTransfer?.types.includes('Files')) event.preventDefault();
  }

  /** What nothing on the page has asked for. */
  protected drop(event: DragEvent): void {
    if (event.defaultPrevented || !event.dataTransfer?.types.includes('Files')) return;
    event.preventDefault();
    void droppedFiles(event.dataTransfer).then((files) => this.drops.take(files));
  }
}

import { effect, inject, Injectable } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { BenchPlaces } from '../layout/bench-places';
import { MapSetEditor } from './map-set-editor';

/** Shows the maps while a set is read and looked over, and the graph once it is laid on. */
@Injectable()
export class MapsInSight {
  constructor() {
    const [editor, places] = [inject(MapSetEditor), inject(BenchPlaces)];
    effect(() => (editor.reading() ?? editor.proposal()) && places.workspace.set('maps'));
    editor.wired.pipe(takeUntilDestroyed()).subscribe(() => places.showGraph());
  }
}

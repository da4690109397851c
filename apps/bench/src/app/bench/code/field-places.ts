import { inject, Injectable } from '@angular/core';
import { OpenFields } from '../documents/open-fields';
import { GraphEditor } from '../editors/graph-editor';
import { BenchPlaces } from '../layout/bench-places';
import { SourceEditor } from './source-editor';

/** Where fields are written: their graphs on the graph tab, their code on the code tab. */
@Injectable()
export class FieldPlaces {
  private readonly fields = inject(OpenFields);
  private readonly editor = inject(GraphEditor);
  private readonly code = inject(SourceEditor);
  private readonly places = inject(BenchPlaces);

  /** Shows where a field that is open is written. @throws ApiFailure */
  async show(id: string): Promise<void> {
    if (this.fields.drawn(id)) {
      this.editor.showGraphOf(id);
      this.places.showGraph();
    } else {
      await this.code.showField(id);
      this.places.workspace.set('code');
    }
  }
}

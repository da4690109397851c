import { effect, inject, Injectable } from '@angular/core';
import { codeKey } from '@brelvin/core';
import { BenchResult } from './bench-result';
import { DocumentStore } from '../documents/document-store';
import { SourceEditor } from '../code/source-editor';

/** Hands the code tab what the compiler says of the material on the Bench. */
@Injectable()
export class CodeAnswers {
  constructor() {
    const [result, store, work] = [inject(BenchResult), inject(DocumentStore), inject(SourceEditor)];
    effect(() => {
      const [said, code] = [result.compiled(), store.material()?.code];
      // What was said of an earlier text has its places there.
      if (said?.diagnostics && code && said.codeKey === codeKey(code)) work.said.set(said.diagnostics);
    });
  }
}

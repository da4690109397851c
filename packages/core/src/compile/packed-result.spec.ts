import { DEMO_DOCUMENTS } from '../demo/demo-documents';
import { demoLibrary } from '../demo/demo-library';
import type { Material } from '../document/material';
import { compileMaterial } from './compile-material';
import { packResult, unpackResult } from './packed-result';

describe('A packed result', () => {
  for (const { id, document } of DEMO_DOCUMENTS.filter((each) => each.document.format === 'brelvin-material')) {
    it(`unpacks to what was packed: ${id}`, () => {
      const result = compileMaterial(document as Material, demoLibrary());
      // The smallest program has no numbers.
      if (id !== 'material-signal-flag') expect(result.compiled?.slots.length).toBeGreaterThan(0);
      expect(unpackResult(packResult(result))).toEqual(result);
    });
  }

  it('carries problems of a material that does not compile', () => {
    const result = { problems: [{ node: 'a', message: 'b' }], rates: {} };
    expect(unpackResult(packResult(result))).toEqual(result);
  });
});

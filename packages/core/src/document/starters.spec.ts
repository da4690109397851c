import { library } from '../catalogue/library';
import { runChecks } from '../checks/run-checks';
import { compileMaterial } from '../compile/compile-material';
import { resolveGraph } from '../compile/resolve';
import { countingIds } from '../testing/graphs';
import { EMPTY_GRAPH } from './graph';
import { newMaterial, newSet } from './new-documents';
import { STARTERS, startEdit, startedFrom } from './starters';
import { applyChanges } from './transaction';

describe('Starters', () => {
  for (const starter of STARTERS) {
    it(`${starter.title}: compiles, and no check finds anything`, () => {
      const material = startedFrom(newMaterial('Begun'), starter);
      expect(compileMaterial(material).problems).toEqual([]);
      const input = { material, resolved: resolveGraph(material, library()), catalogue: library(), set: newSet('s'), bench: 'm' };
      const { findings } = runChecks({ ...input, missingMaterials: new Map(), newId: countingIds() });
      expect(findings.map(({ title }) => title)).toEqual([]);
    });

    it(`${starter.title}: is the same put onto an empty graph`, () => {
      const empty = { ...newMaterial('Begun'), surface: EMPTY_GRAPH };
      expect(applyChanges(empty, startEdit(starter).changes)).toEqual(startedFrom(empty, starter));
    });
  }

  it('have an id and a title each', () => {
    for (const field of ['id', 'title'] as const) expect(new Set(STARTERS.map((each) => each[field])).size).toBe(STARTERS.length);
  });
});

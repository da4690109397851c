import type { Json } from '@brelvin/contract';
import { applyChanges, compileFor, GLSL_TARGET, GraphEdits, isStructural, writeMaterialValues } from '@brelvin/core';
import { wideMaterial } from './graphs';
import { ratio, time, type Pairing } from './measure';

export interface CoreFigures {
  readonly growth: Pairing;
  readonly compile: number[];
  readonly changes: number[];
}

/** What the compiler costs by itself, up to a target's text, in the page it is made for. */
export async function measureCore(): Promise<CoreFigures> {
  const [small, large] = [wideMaterial(500), wideMaterial(5000)];
  for (let warm = 0; warm < 3; warm++) compileFor(GLSL_TARGET, large);
  const growth = await ratio(
    15,
    () => compileFor(GLSL_TARGET, large),
    () => compileFor(GLSL_TARGET, small),
  );
  const wide = wideMaterial(2000);
  const compile: number[] = [];
  for (let count = 0; count < 9; count++) compile.push(await time(() => compileFor(GLSL_TARGET, wide)));
  return { growth, compile, changes: await measureChanges() };
}

async function measureChanges(): Promise<number[]> {
  const material = wideMaterial(200);
  const { compiled } = compileFor(GLSL_TARGET, material);
  if (!compiled) throw new Error('the benchmark material does not compile');
  const words = new Float32Array(4096);
  const changes: number[] = [];
  for (let count = 0; count < 300; count++) {
    const edit = new GraphEdits().setInletValue({ node: 'n6', inlet: 'b' }, count / 300, 'B');
    changes.push(
      await time(() => {
        const next = applyChanges(material as unknown as Json, edit.changes) as unknown as typeof material;
        if (isStructural(edit.changes, compiled.baked)) throw new Error('a number must not compile');
        writeMaterialValues(compiled, next, new Map(), words);
      }),
    );
  }
  return changes;
}

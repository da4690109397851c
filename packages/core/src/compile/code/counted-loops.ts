import type { MaterialCode } from '@brelvin/contract';
import { countedLoops, MOST_STEPS } from '../../ir/loop-guard';
import { SourceText, type Diagnostic } from '../../language';
import { CODE_PATH, VERTICES_PATH, type CodeReading } from './read-code';

/** Steps of all counted loops of one pixel, as people read it. */
export const COUNTED_STEPS = MOST_STEPS.toLocaleString('en');

/** Where a loop stands in one of a material's texts. */
export type PlacedLoop = Pick<Diagnostic, 'path' | 'range' | 'line' | 'column'>;

/** Loops of a material's texts whose length is not plain, so that their steps are counted; but for those of which more is said. */
export function loopsCountedIn(code: MaterialCode, { program, diagnostics }: CodeReading): PlacedLoop[] {
  const isSaid = (path: string, from: number): boolean => diagnostics.some((each) => each.path === path && each.range.from === from);
  const texts: Partial<Record<string, string>> = { [CODE_PATH]: code.text, [VERTICES_PATH]: code.vertices };
  return [program?.pixels, program?.vertices].flatMap((stage) =>
    countedLoops(stage?.functions ?? []).flatMap(({ path, range }) => {
      const text = texts[path];
      return text === undefined || !range || isSaid(path, range.from)
        ? []
        : [{ path, range, ...new SourceText(path, text).position(range.from) }];
    }),
  );
}

import type { MaterialCode } from '@brelvin/contract';
import { withEdits, type CodeMend, type Diagnostic } from '../../language';

/** What was read of a text. */
interface Reading {
  readonly diagnostics: readonly Diagnostic[];
}

/** Characters that are read again to see which mends are good: of long texts only the first ones are tried. */
const MOST_TRIED = 200_000;

/**
 * Leaves of the mends of a text those that mend: with each by itself there are fewer errors, and after what was only warned of not
 * more.
 *
 * @param pixelPath how diagnostics call the text of the pixels
 * @param read reads a text without looking at its mends
 */
export function withGoodMends<T extends Reading>(code: MaterialCode, reading: T, pixelPath: string, read: (code: MaterialCode) => T): T {
  const before = errorsOf(reading);
  let left = MOST_TRIED;
  const mends = (diagnostic: Diagnostic, mend: CodeMend): boolean => {
    const size = code.text.length + (code.vertices?.length ?? 0);
    if (left < size) return false;
    left -= size;
    const inPixels = diagnostic.path === pixelPath;
    const mended = inPixels
      ? { ...code, text: withEdits(code.text, mend.edits) }
      : { ...code, vertices: withEdits(code.vertices ?? '', mend.edits) };
    const after = errorsOf(read(mended));
    return diagnostic.severity === 'error' ? after < before : after <= before;
  };
  let changed = false;
  const diagnostics = reading.diagnostics.map((diagnostic) => {
    const good = diagnostic.mends?.filter((mend) => mends(diagnostic, mend));
    if (!good || good.length === diagnostic.mends?.length) return diagnostic;
    changed = true;
    const { mends: _, ...plain } = diagnostic;
    return good.length > 0 ? { ...plain, mends: good } : plain;
  });
  return changed ? { ...reading, diagnostics } : reading;
}

function errorsOf({ diagnostics }: Reading): number {
  return diagnostics.filter(({ severity }) => severity === 'error').length;
}

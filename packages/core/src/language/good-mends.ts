import { withEdits, type CodeMend, type Diagnostic } from './diagnostics';

/** Characters that are read again to see which mends are good: of long texts only the first ones are tried. */
const MOST_TRIED = 200_000;

/**
 * Leaves of mends those that mend: with each by itself there are fewer errors, and after what was only warned of not more.
 *
 * @param textOf the text that a diagnostic is of
 * @param read reads with another text in its place, without looking at mends
 */
export function goodMends(
  diagnostics: readonly Diagnostic[],
  textOf: (path: string) => string,
  read: (path: string, text: string) => readonly Diagnostic[],
): readonly Diagnostic[] {
  const before = errorsOf(diagnostics);
  let left = MOST_TRIED;
  const mends = ({ path, severity }: Diagnostic, { edits }: CodeMend): boolean => {
    const text = withEdits(textOf(path), edits);
    left -= text.length;
    if (left < 0) return false;
    const after = errorsOf(read(path, text));
    return severity === 'error' ? after < before : after <= before;
  };
  return diagnostics.map((diagnostic) => {
    const { mends: offered, ...plain } = diagnostic;
    const good = offered?.filter((mend) => mends(diagnostic, mend)) ?? [];
    return good.length === (offered?.length ?? 0) ? diagnostic : { ...plain, ...(good.length > 0 ? { mends: good } : {}) };
  });
}

function errorsOf(diagnostics: readonly Diagnostic[]): number {
  return diagnostics.filter(({ severity }) => severity === 'error').length;
}

import { library } from '../../catalogue/library';
import { codeDiagnostics, readCode } from '../../compile/code/read-code';
import { SourceText, withEdits, type Diagnostic } from '../../language';
import type { Rule } from './rule';

/**
 * Reads both programs of a rule: the right one without an error, of the wrong one the first message at its place, in its words,
 * with mends that leave no error.
 *
 * @param isFine errors of the right program that are not of the language
 */
export function expectRule({ right, wrong }: Rule, isFine: (error: Diagnostic) => boolean = () => false): void {
  const isError = ({ severity }: Diagnostic): boolean => severity === 'error';
  const errors = readCode({ text: right }, library()).diagnostics.filter((each) => isError(each) && !isFine(each));
  expect(errors.map(({ line, column, message }) => `${line}:${column} ${message}`)).toEqual([]);
  if (!wrong) return;
  const [first] = codeDiagnostics({ text: wrong.text }, library()).filter(isError);
  const { line, column } = new SourceText('', wrong.text).position(wrong.at);
  expect(`${first?.line}:${first?.column} ${first?.message}`).toContain(`${line}:${column} `);
  expect(wrong.words).not.toBe('');
  expect(first?.message).toContain(wrong.words);
  for (const { label, edits } of first?.mends ?? []) {
    const mended = withEdits(wrong.text, edits);
    const left = readCode({ text: mended }, library()).diagnostics.filter(isError);
    expect(left.map(({ message }) => message))
      .withContext(`${label}: ${mended}`)
      .toEqual([]);
  }
}

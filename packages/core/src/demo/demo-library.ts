import { libraryWith, type FunctionText, type FunctionTexts } from '../catalogue/function-library';
import { library, type Library } from '../catalogue/library';
import { DEMO_DOCUMENTS } from './demo-documents';

let texts: FunctionTexts | undefined;

/** The functions among the demo documents, by name. */
export function demoFunctions(): FunctionTexts {
  texts ??= new Map(
    DEMO_DOCUMENTS.flatMap(({ document }): [string, FunctionText][] =>
      document.format === 'brelvin-function' ? [[document.name, { text: document.text }]] : [],
    ),
  );
  return texts;
}

/** The shader library with the functions of a fresh start. */
export function demoLibrary(): Library {
  return libraryWith(demoFunctions(), library());
}

import {
  foldService,
  HighlightStyle,
  indentService,
  indentUnit,
  LanguageSupport,
  StreamLanguage,
  syntaxHighlighting,
  type StringStream,
} from '@codemirror/language';
import { tags } from '@lezer/highlight';

const WORDS = new Set(
  `if else for while do switch case default return break continue discard const in out inout uniform struct true false import flat smooth centroid layout
  invariant precision highp mediump lowp void loop continuing const_assert`.split(/\s+/),
);
/** Words of WGSL that may be names in GLSL: they are words only where something is declared by them. */
const DECLARING = new Set(['fn', 'let', 'var', 'override', 'alias']);
const TYPES =
  /^(?:float|int|uint|bool|[iub]?vec[234]|mat[234](?:x[234])?|[iu]?sampler(?:2D|3D|Cube|2DArray)(?:Shadow)?|f32|i32|u32|vec[234][fiu]|mat[234]x[234]f|array|ptr|sampler|texture_\w+|Lit|Surface|Shape)$/;

interface State {
  /** Inside of which sort of comment, if any. */
  comment?: 'comment' | 'docComment';
}

function token(stream: StringStream, state: State): string | null {
  if (state.comment) {
    const { comment } = state;
    if (stream.match(/^.*?\*\//)) state.comment = undefined;
    else stream.skipToEnd();
    return comment;
  }
  if (stream.eatSpace()) return null;
  if (stream.match('//')) {
    stream.skipToEnd();
    return 'lineComment';
  }
  if (stream.match('/*')) {
    state.comment = stream.peek() === '*' ? 'docComment' : 'comment';
    return token(stream, state);
  }
  if (stream.match(/^#.*/) || stream.match(/^@\w+/)) return 'meta';
  if (stream.match(/^(?:\d+\.?\d*|\.\d+)(?:[eE][-+]?\d+)?[fhiuU]?/) || stream.match(/^0[xX][\da-fA-F]+[uU]?/)) return 'number';
  const name = stream.match(/^[A-Za-z_]\w*/) as RegExpMatchArray | null;
  if (name) {
    const [word] = name;
    if (WORDS.has(word) || (DECLARING.has(word) && stream.match(/^(?:\s+[A-Za-z_]|\s*<)/, false))) return 'keyword';
    if (TYPES.test(word)) return 'typeName';
    return stream.match(/^\s*\(/, false) ? 'function' : 'variableName';
  }
  stream.next();
  return null;
}

const language = StreamLanguage.define<State>({
  name: 'shading code',
  startState: () => ({}),
  copyState: (state) => ({ ...state }),
  token,
  languageData: {
    commentTokens: { line: '//', block: { open: '/*', close: '*/' } },
    closeBrackets: { brackets: ['(', '[', '{'] },
    indentOnInput: /^\s*\}$/,
  },
  tokenTable: { function: tags.function(tags.variableName) },
});

/** By weight and slant: the only colours on the screen are the user's. */
const looks = HighlightStyle.define([
  { tag: tags.keyword, class: 'code-word' },
  { tag: tags.typeName, class: 'code-type' },
  { tag: tags.function(tags.variableName), class: 'code-function' },
  { tag: tags.number, class: 'code-number' },
  { tag: [tags.comment, tags.lineComment], class: 'code-comment' },
  { tag: tags.docComment, class: 'code-doc' },
  { tag: tags.meta, class: 'code-word' },
]);

/** As the line before, further in behind an opening brace, further out before a closing one. */
const indents = indentService.of((context, at) => {
  const line = context.state.doc.lineAt(at);
  if (line.number === 1) return 0;
  const before = context.state.doc.line(line.number - (context.simulatedBreak === at ? 0 : 1));
  const upTo = context.simulatedBreak === at ? before.text.slice(0, at - before.from) : before.text;
  const base = /^ */.exec(upTo)?.[0].length ?? 0;
  const after = context.simulatedBreak === at ? line.text.slice(at - line.from) : line.text;
  return Math.max(0, base + (/[{(]\s*$/.test(upTo) ? 2 : 0) - (/^\s*[})]/.test(after) ? 2 : 0));
});

/** From an opening brace to its closing one, on another line. */
const folds = foldService.of((state, from, to) => {
  const line = state.sliceDoc(from, to);
  const open = line.lastIndexOf('{');
  if (open < 0 || line.indexOf('}', open) >= 0) return null;
  const text = state.sliceDoc(from + open + 1, Math.min(state.doc.length, from + 100_000));
  let depth = 1;
  for (let at = 0; at < text.length; at++) {
    if (text[at] === '{') depth++;
    else if (text[at] === '}' && --depth === 0)
      return text.slice(0, at).includes('\n') ? { from: from + open + 1, to: from + open + 1 + at } : null;
  }
  return null;
});

export const shadingLanguage = new LanguageSupport(language, [syntaxHighlighting(looks), indents, folds, indentUnit.of('  ')]);

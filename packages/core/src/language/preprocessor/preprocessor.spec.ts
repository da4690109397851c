import { DiagnosticList, withEdits } from '../diagnostics';
import { elaborate } from '../elaborate';
import { tokenize } from '../lexer';
import { SourceText } from '../source';

/** What the preprocessor leaves of a text, and what it says, each with line and column. */
function preprocessed(text: string): { words: string; said: string[] } {
  const source = new SourceText('test', text);
  const diagnostics = new DiagnosticList(source);
  const words = tokenize(source, diagnostics)
    .map((token) => token.text)
    .join(' ')
    .trim();
  return { words, said: diagnostics.items.map(({ line, column, message }) => `${line}:${column} ${message}`) };
}

describe('The preprocessor', () => {
  const RIGHT: readonly (readonly [text: string, words: string])[] = [
    ['#version 300 es\na', 'a'],
    ['#define N 4\nN', '4'],
    ['#define N\n[N]', '[ ]'],
    ['#define A B\n#define B 2\nA', '2'],
    ['#define A B\n#define B A\nA B', 'A B'],
    ['#define SQ(x) ((x)*(x))\nSQ(a + 1)', '( ( a + 1 ) * ( a + 1 ) )'],
    ['#define F(a, b) a-b\nF(1, (2, 3))', '1 - ( 2 , 3 )'],
    ['#define F() 7\nF( )', '7'],
    ['#define F(x) x\nF F(F)(1)', 'F F ( 1 )'],
    ['#define F(x) [x]\n#define G F\nG(2)', '[ 2 ]'],
    ['#define F(x) x + x\nF(F(1))', '1 + 1 + 1 + 1'],
    ['#define F (x)\nF', '( x )'],
    ['#define F(x) x\nF(\n  1\n)', '1'],
    ['#define LONG 1 + \\\n  2\nLONG', '1 + 2'],
    ['flo\\\nat x;', 'float x ;'],
    ['#define N 1 // one\nN', '1'],
    ['#define N /* a\n b */ 1\nN', '1'],
    ['# define N 3\n  #  undef N\nN', 'N'],
    ['#\n#\na', 'a'],
    ['#if 1\na\n#endif', 'a'],
    ['#if 0\nthis is § not "read\n#endif\nb', 'b'],
    ['#if 0\n/* #endif */ // #endif\n#else\nb\n#endif', 'b'],
    ['#ifdef A\na\n#elif defined(B) || 1\nb\n#else\nc\n#endif', 'b'],
    ['#define A\n#ifndef A\na\n#else\nb\n#endif', 'b'],
    ['#if 0\n#if 1\na\n#else\nb\n#endif\n#else\nc\n#endif', 'c'],
    ['#if 1\n#if 0\na\n#else\nb\n#endif\n#elif 1\nc\n#endif', 'b'],
    ['#if 0\n#error no\n#define X 1\n#nonsense\n#endif\nX', 'X'],
    ['#define Q 2\n#if Q > 1 && (Q << 1) == 4\na\n#endif', 'a'],
    ['#if !defined A && ~0 == -1 && 7 % 4 == 3 && 010 == 8 && 0x1F == 31\na\n#endif', 'a'],
    ['#if defined(NONE) && NONE > 2\na\n#endif', ''],
    ['#define TWICE(x) (x * 2)\n#if TWICE(3) == 6\na\n#endif', 'a'],
    ['__VERSION__ GL_ES', '300 1'],
    ['a\n__LINE__\n#line 100\n__LINE__ __FILE__', 'a 2 100 0'],
    ['#define HERE __LINE__\n\nHERE', '3'],
    ['#pragma STDGL invariant(all)\n#pragma "anything" § at all\na', 'a'],
    ['#extension GL_OES_standard_derivatives : enable\na', 'a'],
    ['#extension all : warn\na', 'a'],
    ['#define N 1\n#define N 1\nN', '1'],
  ];
  for (const [text, words] of RIGHT) {
    it(`makes “${words}” of ${JSON.stringify(text)}`, () => {
      expect(preprocessed(text)).toEqual({ words, said: [] });
    });
  }

  const WRONG: readonly (readonly [text: string, said: string])[] = [
    ['a\n#version 300 es', '2:2 “#version” stands before all else.'],
    ['#version 450', '1:2 This is read as “#version 300 es”, not 450. What is spelt otherwise there is said where it stands.'],
    ['#version', '1:2 “#version” needs a number: #version 300 es.'],
    ['#define', '1:2 “#define” needs a name, as in “#define COUNT 4”.'],
    ['#define 3 4', '1:9 “#define” needs a name, as in “#define COUNT 4”.'],
    ['#define F(a, a) a', '1:14 Two parameters are called “a”.'],
    ['#define F(a b) a', '1:13 The parameters of a macro are parted by “,” and closed by “)”.'],
    ['#define F(a,) a', '1:13 A name is missing behind “,”.'],
    ['#define F(3) a', '1:11 The parameters of “F” are names, closed by “)”.'],
    ['#define N 1\n#define N 2', '2:9 “N” is defined otherwise before. Write “#undef N” first.'],
    ['#define GL_MINE 1', '1:9 Names that begin with “GL_” belong to the language. Choose another one.'],
    ['#define A__B 1', '1:9 Names with two underscores in a row are reserved. Choose another one.'],
    ['#define defined 1', '1:9 “defined” belongs to the preprocessor and is no name of a macro.'],
    ['#undef __VERSION__', '1:8 “__VERSION__” is defined by the language and stays as it is.'],
    ['#undef', '1:2 “#undef” needs the name of a macro.'],
    ['#undef A B', '1:10 “#undef A” ends here; one name is enough.'],
    ['#define F(x) x\nF(1, 2)', '2:1 The macro “F” takes 1 argument, 2 are given.'],
    ['#define F(x, y) x\nF()', '2:1 The macro “F” takes 2 arguments, 1 are given.'],
    ['#define F(x) x\nF(1', '2:1 The arguments of the macro “F” are never closed. Put “)” behind them.'],
    ['#if', '1:2 A condition is missing here, as in “#if QUALITY > 1”.'],
    ['#if 1 +\n#endif', '1:7 A condition is missing here, as in “#if QUALITY > 1”.'],
    ['#if 1 2\n#endif', '1:7 The condition ends before “2”.'],
    ['#if (1\n#endif', '1:5 A “)” is missing in this condition.'],
    ['#if NONE\n#endif', '1:5 “NONE” is not defined here. Ask for it with “defined(NONE)” first.'],
    ['#if 1.0\n#endif', '1:5 Conditions of the preprocessor know whole numbers only, not “1.0”.'],
    ['#if 1 / 0\n#endif', '1:7 This divides by zero.'],
    ['#if defined\n#endif', '1:5 “defined” asks for a name, as in “defined(QUALITY)”.'],
    ['#ifdef\n#endif', '1:2 “#ifdef” needs the name of a macro.'],
    ['a\n#ifdef A\nb', '2:2 This “#ifdef” is never closed. Put “#endif” where it should end.'],
    ['#endif', '1:2 There is no open “#if” for this “#endif”.'],
    ['#else', '1:2 There is no open “#if” for this “#else”.'],
    ['#if 1\n#else\n#else\n#endif', '3:2 “#else” stands behind the “#else” of this group.'],
    ['#if 1\n#else\n#elif 1\n#endif', '3:2 “#elif” stands behind the “#else” of this group.'],
    ['#error needs more light', '1:2 The text itself says: needs more light.'],
    ['#extension GL_X', '1:2 An extension is asked for as in “#extension GL_EXT_name : enable”.'],
    ['#extension GL_X : maybe', '1:19 An extension can be “require”, “enable”, “warn” or “disable”.'],
    ['#extension GL_X : require', '1:12 There is no extension “GL_X” here.'],
    ['#extension GL_X : enable', '1:12 There is no extension “GL_X” here; the program must do without it.'],
    ['#extension all : enable', '1:18 All extensions at once can only be warned of or disabled.'],
    ['a\n#extension all : warn', '2:2 “#extension” stands before all code.'],
    ['#line x', '1:2 “#line” takes the number of the line that follows, and perhaps the number of a text.'],
    ['#include "noise"', '1:2 There is no “#include”. A function of the Library is taken into use by “import name;”.'],
    [
      '#inclde <a>',
      '1:2 There is no directive “#inclde”. There are #define, #undef, #if, #ifdef, #ifndef, #elif, #else, #endif, #error, #pragma, #extension, #version, #line.',
    ],
  ];
  for (const [text, said] of WRONG) {
    it(`says of ${JSON.stringify(text)}: ${said.slice(0, 60)}`, () => {
      expect(preprocessed(text).said[0]).toBe(said);
    });
  }

  it('stops macros that come to more than there is memory for', () => {
    const doubling = Array.from({ length: 40 }, (_, index) => `#define D${index + 1} D${index} D${index}`).join('\n');
    expect(preprocessed(`#define D0 a\n${doubling}\nD40`).said[0]).toContain('Macros come to more than 100,000 words here.');
  });

  /** What is said first of a text, where, and what becomes of it with its mend. */
  function mended(text: string): { said: string; text?: string; declared?: string } {
    const { diagnostics } = elaborate('test', text);
    const [first] = diagnostics;
    const edits = first?.mends?.[0]?.edits;
    const related = first?.related?.[0];
    return {
      said: `${first?.line}:${first?.column} ${first?.message}`,
      ...(edits ? { text: withEdits(text, edits) } : {}),
      ...(related ? { declared: `${related.line}:${related.column}` } : {}),
    };
  }

  it('tells a semicolon at a definition where it stands', () => {
    const text = '#define PI 3.14;\nfloat f() { return PI * 2.0; }';
    expect(mended(text)).toEqual({
      said: '1:16 The macro “PI” ends with “;”, which is put in place with it. Take it away.',
      text: '#define PI 3.14\nfloat f() { return PI * 2.0; }',
      declared: '2:20',
    });
  });

  it('points at a macro in the text for what is wrong in its body, shows its definition, and offers no mend that would take it apart', () => {
    expect(mended('#define SUM(x) x + 1\nfloat f(float a) { return SUM(a); }')).toEqual({
      said: '2:27 Whole numbers and floats do not mix. Write 1.0.',
      declared: '1:9',
    });
  });

  it('points at an argument of a macro where it is written', () => {
    const { said, text } = mended('#define SUM(x) (x + 1.0)\nfloat f() { return SUM(tint); }');
    expect([said, text]).toEqual(['2:24 Nothing here is called "tint".', undefined]);
  });
});

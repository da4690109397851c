import { DiagnosticList } from './diagnostics';
import { tokenize, type Token } from './lexer';
import { SourceText } from './source';

function read(text: string): { tokens: Token[]; messages: string[] } {
  const source = new SourceText('test', text);
  const diagnostics = new DiagnosticList(source);
  const tokens = tokenize(source, diagnostics);
  return { tokens, messages: diagnostics.items.map((item) => `${item.line}:${item.column} ${item.message}`) };
}

function words(text: string): string[] {
  return read(text).tokens.map((token) => token.text);
}

describe('tokenize', () => {
  it('takes the longest operator', () => {
    expect(words('a <<= b << c <= d < e')).toEqual(['a', '<<=', 'b', '<<', 'c', '<=', 'd', '<', 'e', '']);
  });

  it('tells floats from whole numbers', () => {
    const kinds = (text: string): string[] => read(text).tokens.map((token) => token.kind);
    expect(kinds('1 1. .5 1e3 0x1F 7u 2.5f')).toEqual(['int', 'float', 'float', 'float', 'int', 'uint', 'float', 'end']);
  });

  it('leaves comments out and keeps documentation with what follows', () => {
    const { tokens } = read('/* no */ /** Yes. */ float f; // end');
    expect(tokens[0]?.documentation).toEqual({ from: 9, to: 20 });
    expect(tokens[1]?.documentation).toBeUndefined();
  });

  it('reads over #version and puts constants in place', () => {
    expect(words('#version 300 es\n#define COUNT 4\nint n = COUNT;')).toEqual(['int', 'n', '=', '4', ';', '']);
  });

  it('refuses what is no directive where it stands', () => {
    expect(read('int a;\n#use X').messages[0]).toMatch(/^2:2 There is no directive “#use”/);
    expect(read('int a; #define X').messages).toEqual(['1:8 A line of the preprocessor begins with "#"; nothing stands before it.']);
  });

  it('says where a comment was left open', () => {
    expect(read('int a;\n  /* open').messages).toEqual(['2:3 This comment is never closed. Add "*/" where it should end.']);
  });

  it('names a character that means nothing, and goes on', () => {
    const { tokens, messages } = read('a § b 😀 c');
    expect(messages).toEqual(['1:3 The character "§" has no meaning here.', '1:7 The character "😀" has no meaning here.']);
    expect(tokens.map((token) => token.text)).toEqual(['a', 'b', 'c', '']);
  });
});

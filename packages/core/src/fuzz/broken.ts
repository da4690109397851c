import type { Random } from './random';

const ODD = ['ä', '\u202e', '\u0000', '🜁', '"', "'", '`', '\\', '$', '@', '\ufeff', 'ﬁ'];
const WORDS = [
  'float',
  'vec3',
  'mat4',
  'struct',
  'uniform',
  'in',
  'out',
  'inout',
  'const',
  'if',
  'else',
  'for',
  'while',
  'do',
  'return',
  'break',
  'discard',
  'import',
  'varying',
  'void',
  'main',
  'paint',
  'texture2D',
  'sampler2D',
  'Surface',
  'true',
  '1e999',
  '99999999999',
  '0x',
  '1.',
  '.',
  '#define A',
  '#version 300 es\n',
  '/*',
  '*/',
  '//',
  '/**',
];
const SIGNS = [...'{}()[];,.+-*/%<>=!&|^~?:'];

/** Damages a right text at random: what comes out may be anything. */
export function broken(random: Random, text: string): string {
  let result = text;
  for (let damage = 1 + random.whole(4); damage > 0; damage--) {
    const at = random.whole(result.length + 1);
    const until = Math.min(result.length, at + 1 + random.whole(random.chance(0.2) ? 80 : 6));
    const put = (middle: string, to = at): string => result.slice(0, at) + middle + result.slice(to);
    switch (random.whole(7)) {
      case 0:
        result = put('', until);
        break;
      case 1:
        result = put(random.of(SIGNS));
        break;
      case 2:
        result = put(` ${random.of(WORDS)} `);
        break;
      case 3:
        result = put(random.of(ODD));
        break;
      case 4:
        result = put(result.slice(at, until).repeat(1 + random.whole(30)), until);
        break;
      case 5: {
        // Two pieces change places.
        const other = random.whole(result.length + 1);
        const piece = result.slice(other, other + 20);
        result = put(piece, until);
        break;
      }
      default:
        result = random.chance(0.5) ? result.slice(0, at) : put(random.of(SIGNS).repeat(random.whole(400)));
    }
  }
  return result;
}

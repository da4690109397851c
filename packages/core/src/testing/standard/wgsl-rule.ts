import { rulesOf, type Row, type Rule } from './rule';

/** Rules of WGSL, their programs in short, as for GLSL. */
export function wgslRules(section: string, rows: readonly Row[]): Rule[] {
  return rulesOf(section, rows, program);
}

function program(short: string): string {
  const [first = '', second] = short.split('¦');
  const [outside, inside] = second === undefined ? ['', first] : [first, second];
  return `${outside.trim()}\n@fragment fn pixels() -> @location(0) vec4f {\n  var pixel = vec4f();\n  ${inside.trim()}\n  return pixel;\n}\n`;
}

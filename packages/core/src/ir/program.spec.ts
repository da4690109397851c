import { elaborate } from '../language';
import { linkProgram, linkStage } from './program';
import { expressionKey, mapValues, substitute } from './passes';
import { constant, float, global, local } from './build';
import { mergeModules, type Declare } from './ir';
import { FLOAT, VEC3 } from './types';
import { walkBody } from './walk';

const module = (code: string): ReturnType<typeof elaborate>['module'] => elaborate('test', code).module;

describe('linkStage', () => {
  it('puts callees before callers and structs before their users', () => {
    const stage = linkStage(
      'fragment',
      module(`out vec4 pixel; struct Inner { float a; }; struct Outer { Inner inner; };
        float low(Outer o) { return o.inner.a; } float high(Outer o) { return low(o) + 1.0; }
        void main() { Outer o; pixel = vec4(high(o)); }`),
    );
    expect(stage.functions.map((each) => each.name)).toEqual(['low', 'high', 'main']);
    expect(stage.structs.map((each) => each.name)).toEqual(['Inner', 'Outer']);
  });

  it('keeps only what is used', () => {
    const stage = linkStage(
      'fragment',
      module('in vec2 uv; in vec3 idle; uniform sampler2D picture; out vec4 pixel; void main() { pixel = texture(picture, uv); }'),
    );
    expect(stage.inputs.map((each) => each.name)).toEqual(['uv']);
    expect(stage.samplers.map((each) => each.name)).toEqual(['picture']);
  });
});

describe('linkProgram', () => {
  it('drops vertex outputs that no pixel reads, also written in parts', () => {
    const vertex = module(
      'in vec3 place; out vec3 used; out vec2 idle; void main() { used = place; idle.x = place.x; idle.y = 1.0; gl_Position = vec4(place, 1.0); }',
    );
    const fragment = module('in vec3 used; out vec4 pixel; void main() { pixel = vec4(used, 1.0); }');
    expect(linkProgram(vertex, fragment).vertex.outputs.map((each) => each.name)).toEqual(['used']);
  });

  it('needs a vertex stage', () => {
    expect(() => linkProgram(module('float f() { return 1.0; }'), module('out vec4 p; void main() { p = vec4(1.0); }'))).toThrowError(
      'a program needs void main()',
    );
  });
});

describe('mergeModules', () => {
  it('lets a later module take the place of an earlier one', () => {
    const merged = mergeModules(module('float f() { return 1.0; }'), module('float f() { return 2.0; } float g() { return 3.0; }'));
    const values: number[] = [];
    for (const each of merged.functions.values())
      walkBody(each.body, (expression) => expression.op === 'constant' && values.push(...expression.value));
    expect(values).toEqual([2, 3]);
  });
});

describe('Passes over a line', () => {
  const line: Declare[] = [
    { op: 'declare', name: 'a', type: FLOAT, value: global('x', FLOAT), mutable: false },
    { op: 'declare', name: 'b', type: FLOAT, value: float(1), mutable: false },
  ];

  it('keep declarations whose value stays', () => {
    const next = mapValues(line, (value) => (value.op === 'constant' ? float(2) : value));
    expect(next[0]).toBe(line[0]);
    expect(next[1]?.value).toEqual(float(2));
  });

  it('substitute in one scope only', () => {
    const sum = { op: 'binary', operator: '+', left: local('x', FLOAT), right: global('x', FLOAT), type: FLOAT } as const;
    expect(substitute(sum, 'local', new Map([['x', float(5)]]))).toEqual({ ...sum, left: float(5) });
    expect(substitute(sum, 'local', new Map())).toBe(sum);
  });

  it('tell different expressions apart', () => {
    const keys = [
      float(0),
      float(-0),
      float(1),
      constant(VEC3, [1, 1, 1]),
      local('x', FLOAT),
      global('x', FLOAT),
      { op: 'unary', operator: '-', value: local('x', FLOAT), type: FLOAT } as const,
      { op: 'binary', operator: '-', left: local('x', FLOAT), right: local('y', FLOAT), type: FLOAT } as const,
      { op: 'binary', operator: '-', left: local('y', FLOAT), right: local('x', FLOAT), type: FLOAT } as const,
      { op: 'swizzle', object: local('v', VEC3), components: [0], type: FLOAT } as const,
      { op: 'swizzle', object: local('v', VEC3), components: [1], type: FLOAT } as const,
      { op: 'builtin', name: 'sin', args: [local('x', FLOAT)], type: FLOAT } as const,
      { op: 'call', callee: 'sin(float)', args: [local('x', FLOAT)], type: FLOAT } as const,
    ].map(expressionKey);
    expect(new Set(keys).size).toBe(keys.length);
  });
});

import { constant, float, global, local } from './build';
import type { Declare, Expression } from './ir';
import { dropDead, fold, reachableFunctions, shareCommon } from './passes';
import { blockLayout } from './layout';
import { FLOAT, matrix as square, VEC2, VEC4, type Type } from './types';

const context = { functions: new Map() };
const add = (left: Expression, right: Expression): Expression => ({ op: 'binary', operator: '+', left, right, type: left.type });
const declare = (name: string, value: Expression): Declare => ({ op: 'declare', name, type: value.type, value, mutable: false });
const input = global('x', FLOAT);

describe('fold', () => {
  it('computes what is known', () => {
    expect(fold(add(float(1), add(float(2), float(3))), context)).toEqual(float(6));
  });

  it('leaves what is not', () => {
    const expression = add(input, float(1));
    expect(fold(expression, context)).toBe(expression);
  });

  it('keeps expressions without a finite value as code, so that no driver sees them folded', () => {
    const root: Expression = { op: 'builtin', name: 'sqrt', args: [float(-1)], type: FLOAT };
    expect(fold(root, context).op).toBe('builtin');
    const division: Expression = { op: 'binary', operator: '/', left: float(1), right: float(0), type: FLOAT };
    expect(fold(division, context).op).toBe('binary');
  });

  it('rounds to 32 bits', () => {
    expect(fold(add(float(0.1), float(0.2)), context)).toEqual(constant(FLOAT, [Math.fround(0.1 + 0.2)]));
  });
});

describe('shareCommon', () => {
  it('gives equal expressions one name', () => {
    const line = [
      declare('a', add(input, float(1))),
      declare('b', add(input, float(1))),
      declare('c', add(local('a', FLOAT), local('b', FLOAT))),
    ];
    const { line: kept, replaced } = shareCommon(line);
    expect(kept.map((each) => each.name)).toEqual(['a', 'c']);
    expect(replaced.get('b')).toEqual(local('a', FLOAT));
    expect(kept[1]?.value).toEqual(add(local('a', FLOAT), local('a', FLOAT)));
  });

  it('puts constants and references in place', () => {
    const { line } = shareCommon([declare('a', float(2)), declare('b', input), declare('c', add(local('a', FLOAT), local('b', FLOAT)))]);
    expect(line).toEqual([declare('c', add(float(2), input))]);
  });
});

describe('dropDead', () => {
  it('keeps only what the results need', () => {
    const line = [declare('a', input), declare('b', input), declare('c', add(local('a', FLOAT), float(1)))];
    expect(dropDead(line, [local('c', FLOAT)]).map((each) => each.name)).toEqual(['a', 'c']);
    expect(dropDead(line, [])).toEqual([]);
  });
});

describe('reachableFunctions', () => {
  it('says which function is missing', () => {
    expect(() => reachableFunctions(['main()'], new Map(), () => [])).toThrowError('the program calls main(), which no module defines');
  });
});

describe('blockLayout', () => {
  const member = (name: string, type: Type): { name: string; type: Type } => ({ name, type });

  it('places members as std140 does', () => {
    const { members, words } = blockLayout({
      name: 'Test',
      members: [
        member('a', FLOAT),
        member('b', VEC2),
        member('c', FLOAT),
        member('d', VEC4),
        member('e', { kind: 'array', element: VEC4, length: 3 }),
        member('f', square(4)),
        member('g', FLOAT),
      ],
    });
    expect([...members.values()].map(({ offset }) => offset)).toEqual([0, 2, 4, 8, 12, 24, 40]);
    expect(words).toBe(44);
  });

  it('refuses what std140 and WGSL lay out differently', () => {
    expect(() => blockLayout({ name: 'Test', members: [member('a', { kind: 'array', element: FLOAT, length: 2 })] })).toThrowError(
      /may not hold/,
    );
  });
});

import { LONGEST_NAME } from '@brelvin/contract';
import { FieldSampler } from './field-sampler';
import { marchedField } from './march';
import { measuredSlope } from './measured-slope';
import { occupiedBounds } from './occupied-bounds';
import { FIRST_FIELD, readField, readsTime, type FieldProgram } from './read-field';

const BOX = { low: [-2, -2, -2], high: [2, 2, 2] };

function program(text: string): FieldProgram {
  const { program, diagnostics } = readField(text);
  if (!program) throw new SyntaxError(diagnostics[0].message);
  return program;
}

const sampler = (text: string, seconds = 0): FieldSampler => new FieldSampler(program(text), seconds);
const whole = (expression: string): string => `float field(vec3 p) { return ${expression}; }`;

describe('The text of a field', () => {
  it('is a function of either language, with regions or without', () => {
    const regions = (text: string): readonly string[] => program(text).regions.map(({ name }) => name);
    expect(regions(whole('sphereField(p, 1.0)'))).toEqual(['field']);
    expect(regions(FIRST_FIELD)).toEqual(['Float', 'Collar']);
    const wgsl = `const POSTS: i32 = 7; // region Posts
const RACK: i32 = 3; // region: Rack of pine
fn field(p: vec3f) -> Field {
  return unionOf(Field(sphereField(p, 1.0), POSTS), Field(boxField(p, vec3f(1.9), 0.0), RACK));
}`;
    expect(regions(wgsl)).toEqual(['Posts', 'Rack of pine']);
    // A rule can name no more.
    expect(regions(`const int A = 1; // region ${'long '.repeat(99)}\n${whole('p.y')}`)[0]?.length).toBeLessThanOrEqual(LONGEST_NAME);
    // Parts are numbered in the order of the text, whatever numbers it gives them.
    expect(sampler(wgsl).at([1.2, 0, 0]).distance).toBeCloseTo(0.2, 5);
    expect(sampler(wgsl).at([1.2, 0, 0]).part).toBe(0);
    expect(sampler(wgsl).at([1.2, 1.2, 1.2]).part).toBe(1);
  });

  it('counts a number that no region bears as the first one', () => {
    const text =
      'const int A = 1; // region A\nconst int B = 2; // region B\nfloat field(vec3 p, out int region) { region = 99; return p.x; }';
    expect(sampler(text).at([1, 0, 0]).part).toBe(0);
  });

  it('is refused with a place and a way to mend it', () => {
    const said = (text: string): [string, number, number] => {
      const [first] = readField(text).diagnostics;
      return [first?.message ?? '', first?.line ?? 0, first?.column ?? 0];
    };
    expect(said('')[0]).toContain('float field(vec3 p, out int region)');
    expect(said('float feild(vec3 p) { return 1.0; }')[0]).toContain('A field is a function of this form');
    expect(said('float field(vec3 p) {\n  return spherefield(p, 1.0);\n}')).toEqual([jasmine.stringContaining('spherefield'), 2, 10]);
    expect(said('uniform float size;\nfloat field(vec3 p) { return size; }')).toEqual([
      jasmine.stringContaining('write “size” as a const'),
      1,
      15,
    ]);
    expect(said('float count = 0.0;\nfloat field(vec3 p) { count += 1.0; return p.y; }')[0]).toContain(
      '“count” is a variable outside of functions',
    );
    expect(said(whole('surfaceUv().x'))[0]).toContain('there is no “meshUv” in it');
    expect(said(whole('dFdx(p.x)'))[0]).toContain('dFdx');
    const many = Array.from({ length: 65 }, (_, index) => `const int R${index} = ${index}; // region ${index}`).join('\n');
    expect(said(`${many}\n${whole('p.y')}`)[0]).toContain('64 regions; there are 65');
  });

  it('may use names that the library has, without changing what that does', () => {
    const text = 'float withinAll(vec3 q) { return 7.0; }\nfloat field(vec3 p) { return boxField(p, vec3(2.0), 0.0) + withinAll(p); }';
    expect(sampler(text).at([2, 0, 0]).distance).toBeCloseTo(8, 5);
  });

  it('that never ends, or is no number, says so by not being a number', () => {
    expect(
      sampler('float field(vec3 p) { float a = 0.0; while (a < 1.0) { a -= 1.0; } return a; }').at([0, 0, 0]).distance,
    ).not.toBeGreaterThan(0);
    expect(sampler(whole('sqrt(p.x)')).at([-1, 0, 0]).distance).toBeNaN();
  });

  it('may follow the clock', () => {
    const text = whole('sphereField(p, 1.0) + 0.5 * sin(stageTime())');
    expect([readsTime(program(text)), readsTime(program(FIRST_FIELD))]).toEqual([true, false]);
    expect(sampler(text, Math.PI / 2).at([2, 0, 0]).distance).toBeCloseTo(1.5, 5);
  });
});

describe('What is found out about a field', () => {
  it('how steep it is: 1 of a distance, more of what is none', () => {
    expect(measuredSlope(sampler(whole('sphereField(p, 1.0)')), BOX)).toBeCloseTo(1, 2);
    expect(measuredSlope(sampler(whole('100.0 * p.y')), BOX)).toBeCloseTo(100, 0);
    expect(measuredSlope(sampler(whole('3.0')), BOX)).toBe(0);
    expect(measuredSlope(sampler(whole('sqrt(-1.0 - p.x * p.x)')), BOX)).toBe(0);
    const rippled = measuredSlope(sampler(whole('sphereField(p, 1.0) + 0.1 * sin(20.0 * p.x)')), BOX);
    expect(rippled).toBeGreaterThan(2.9);
    expect(rippled).toBeLessThan(3.01);
    // Space that is repeated by hand jumps where what stands in it is not the same on both sides.
    expect(measuredSlope(sampler(whole('sphereField(vec3(p.x, fract(p.y) - 0.2, p.z), 0.3)')), BOX)).toBeCloseTo(1, 2);
  });

  it('where it stands: the box is drawn in to it, and to nothing where there is nothing', () => {
    const small = occupiedBounds(sampler(whole('sphereField(p - vec3(1.0), 0.4)')), BOX, 1);
    expect(small?.low.every((each) => each >= 0 && each <= 0.6)).toBeTrue();
    expect(small?.high.every((each) => each >= 1.4 && each <= 2)).toBeTrue();
    expect(occupiedBounds(sampler(whole('sphereField(p - vec3(9.0), 0.4)')), BOX, 1)).toBeUndefined();
    expect(occupiedBounds(sampler(whole('-9.0')), BOX, 1)).toBeUndefined();
    // The floor of it all goes on to the walls of the box.
    expect(occupiedBounds(sampler(whole('p.y')), BOX, 1)).toEqual({ low: [-2, -0.5, -2], high: [2, 0.5, 2] });
    expect(occupiedBounds(sampler(whole('sqrt(-1.0 - p.x * p.x)')), BOX, 1)).toEqual(BOX);
  });

  it('where a ray meets it, also from inside, and which part it is', () => {
    const ray = { origin: [0, 0, 5], direction: [0, 0, -2] };
    const hit = (text: string, from = ray): ReturnType<typeof marchedField> => marchedField(sampler(text), BOX, from);
    // Distances count in lengths of the direction.
    expect(hit(whole('sphereField(p, 1.0)'))?.distance).toBeCloseTo(2, 3);
    expect(hit(whole('sphereField(p, 1.0)'), { origin: [0, 0, 0], direction: [0, 1, 0] })?.distance).toBeCloseTo(1, 3);
    expect(hit(FIRST_FIELD)?.part).toBe(0);
    expect(hit(FIRST_FIELD, { origin: [0, 0.25, 5], direction: [0, 0, -1] })?.part).toBe(1);
    expect(hit(whole('sphereField(p, 1.0)'), { origin: [0, 1.5, 5], direction: [0, 0, -1] })).toBeUndefined();
    expect(hit(whole('sqrt(-1.0 - p.x * p.x)'))).toBeUndefined();
    expect(hit(whole('1.0'), { origin: [0, 0, 0], direction: [0, 0, 0] })).toBeUndefined();
  });
});

import type { Material } from '@brelvin/contract';
import { setParameter } from '../../document/material-edits';
import { applyChanges } from '../../document/transaction';
import { parametersOf, setMaterialCode } from './code-edits';
import { newCodeMaterial } from './new-code';

const PAINT = 'vec4 paint(Surface s) { return vec4(1.0); }';

function withText(material: Material, text: string): Material {
  return applyChanges(material, setMaterialCode(material, { text }).changes);
}

const values = ({ parameters }: Material): Record<string, unknown> =>
  Object.fromEntries(Object.values(parameters).map(({ uniform, value }): [string, unknown] => [uniform ?? '', value]));

describe('Parameters of a code material', () => {
  it('are its uniforms, with what their comments say', () => {
    const [gloss, tint, kind, lit, map] = parametersOf({
      text: `/** Gloss: how sharp the spot is. @value 32 in 1..256 unit px @heading Spot */
uniform float gloss;
/** @colour #ff0000 */
uniform vec3 accent;
/** @value 1 @of plain|striped|dotted */
uniform int kind;
/** Lit: whether a lamp is on. @value on */
uniform bool lit;
uniform sampler2D saltMap;
${PAINT}`,
    });
    expect(gloss).toEqual(
      jasmine.objectContaining({
        name: 'Gloss',
        type: 'number',
        value: 32,
        low: 1,
        high: 256,
        unit: 'px',
        heading: 'Spot',
        help: 'How sharp the spot is.',
      }),
    );
    expect(tint).toEqual(jasmine.objectContaining({ name: 'Accent', type: 'colour', value: [1, 0, 0] }));
    expect(kind).toEqual(jasmine.objectContaining({ type: 'choice', value: 1, choices: ['plain', 'striped', 'dotted'] }));
    expect(lit).toEqual(jasmine.objectContaining({ type: 'switch', value: 1 }));
    expect(map).toEqual(jasmine.objectContaining({ name: 'Salt map', type: 'image' }));
  });

  it('keep their value, variants and place when the uniform gets another name', () => {
    let material = newCodeMaterial('m', {}, { text: `uniform float amount;\nuniform float other;\n${PAINT}` });
    const id = Object.keys(material.parameters).find((each) => material.parameters[each]?.uniform === 'amount') ?? '';
    material = applyChanges(material, setParameter(id, 'value', 0.7).changes);
    material = withText(material, `uniform float amountOfGlow;\nuniform float other;\n${PAINT}`);
    expect(material.parameters[id]).toEqual(jasmine.objectContaining({ uniform: 'amountOfGlow', value: 0.7, name: 'Amount of glow' }));
    expect(Object.keys(material.parameters).length).toBe(2);
  });

  it('keep their value while their line is away or broken', () => {
    let material = newCodeMaterial('m', {}, { text: `/** @value 0.2 */ uniform float amount;\n${PAINT}` });
    material = applyChanges(material, setParameter('u-amount', 'value', 0.9).changes);
    material = withText(material, PAINT);
    material = withText(material, `uniform floa amount;\n${PAINT}`);
    material = withText(material, `/** @value 0.2 */ uniform float amount;\n${PAINT}`);
    expect(values(material)).toEqual({ amount: 0.9 });
  });

  it('follow a default that nobody has changed, and no other', () => {
    let material = newCodeMaterial('m', {}, { text: `/** @value 1 */ uniform float a;\n/** @value 1 */ uniform float b;\n${PAINT}` });
    material = applyChanges(material, setParameter('u-b', 'value', 5).changes);
    material = withText(material, `/** @value 2 */ uniform float a;\n/** @value 2 */ uniform float b;\n${PAINT}`);
    expect(values(material)).toEqual({ a: 2, b: 5 });
  });

  it('take their default when the type changes', () => {
    let material = newCodeMaterial('m', {}, { text: `/** @value 3 */ uniform float a;\n${PAINT}` });
    material = withText(material, `/** @value 1 2 */ uniform vec2 a;\n${PAINT}`);
    expect(values(material)).toEqual({ a: [1, 2] });
  });

  it('leave out what whole programs are given', () => {
    expect(
      parametersOf({ text: 'uniform float time;\nuniform float gain;\nout vec4 p;\nvoid main() { p = vec4(time * gain); }' }).map(
        ({ uniform }) => uniform,
      ),
    ).toEqual(['gain']);
  });

  it('change nothing where nothing changed', () => {
    const material = newCodeMaterial('m', {}, { text: `uniform float a;\n${PAINT}` });
    expect(setMaterialCode(material, { text: material.code?.text ?? '' }).changes).toEqual([]);
  });
});

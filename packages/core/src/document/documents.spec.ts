import { DOCUMENT_KINDS, type LightRig, type Material, toJsonSchema, type StageSet } from '@brelvin/contract';
import { DEMO_DOCUMENTS } from '../demo/demo-documents';
import { InvalidDocument, kindOf, parseDocument, readDocument } from './documents';
import { newMaterial, newRig, newSet } from './new-documents';
import { applyChanges } from './transaction';

describe('readDocument', () => {
  it('takes every fresh and every demo document', () => {
    for (const document of [newMaterial('m'), newSet('s'), newRig('r'), ...DEMO_DOCUMENTS.map((each) => each.document)]) {
      expect(readDocument(JSON.parse(JSON.stringify(document))) as object).toEqual(document);
    }
  });

  it('knows the kinds', () => {
    expect([newMaterial('m'), newSet('s'), newRig('r')].map(kindOf)).toEqual(['material', 'set', 'rig']);
  });

  const material = newMaterial('Lantern');
  const changed = (change: object): unknown => ({ ...material, ...change });
  const withNode = (node: object): unknown => changed({ surface: { nodes: { n: node }, ribbons: {} } });
  const goodNode = { kind: 'add', rev: 1, x: 0, y: 0, values: {} };

  const bad: readonly (readonly [string, unknown, RegExp])[] = [
    ['a list', [], /must be a JSON object/],
    ['nothing', null, /must be a JSON object/],
    ['another format', { format: 'other' }, /"format" is "other"/],
    ['no version', { format: 'brelvin-material' }, /which version/],
    ['a newer version', changed({ version: 99 }), /version 99.*reads up to version 2.*newer Brelvin/],
    ['a name of 10,000 characters', changed({ name: 'x'.repeat(10_000) }), /name may have at most 120 characters, has 10000/],
    ['an empty name', changed({ name: '' }), /name must not be empty/],
    ['a missing part', { format: 'brelvin-material', version: 2, name: 'x', tags: [] }, /surface is missing.*more/],
    ['an unknown part', changed({ extra: 1 }), /extra is not known here/],
    ['a node without a place', withNode({ kind: 'add', rev: 1, values: {} }), /surface.nodes.n.x is missing/],
    ['a place that is text', withNode({ ...goodNode, x: 'left' }), /surface.nodes.n.x must be a finite number, found the text "left"/],
    ['a value that is no number', withNode({ ...goodNode, values: { a: 'red' } }), /values.a must be a number or a list/],
    [
      'a node id that is a trap',
      changed({ surface: { nodes: JSON.parse('{"__proto__": {}}') as object, ribbons: {} } }),
      /name that is not allowed/,
    ],
    [
      'a ribbon to nowhere',
      changed({ surface: { nodes: {}, ribbons: { nonsense: { from: 'a', outlet: 'b' } } } }),
      /ribbons.nonsense has a name/,
    ],
    [
      'too many nodes',
      changed({
        surface: { nodes: Object.fromEntries(Array.from({ length: 10_001 }, (_, index) => [`n${index}`, goodNode])), ribbons: {} },
      }),
      /at most 10000 entries/,
    ],
    ['a rig with half a colour', { ...newRig('r'), background: [1, 2] }, /background must have 3 entries, has 2/],
    [
      'a set with an unknown mesh',
      { ...newSet('s'), meshes: { m: { ...newSet('s').meshes['mesh'], shape: 'teapot' } } },
      /shape must be "sphere"/,
    ],
  ];
  for (const [what, value, words] of bad) {
    it(`refuses ${what}`, () => {
      expect(() => readDocument(value)).toThrowError(InvalidDocument, words);
    });
  }

  it('brings documents of version 1 to the present form, and steps saved before still apply', () => {
    const old = {
      format: 'brelvin-material',
      version: 1,
      name: 'Old lantern',
      surface: { nodes: { n: goodNode }, ribbons: {} },
      parameters: {},
      notes: '',
      seenIn: {},
    };
    const material = readDocument(old) as Material;
    expect([material.version, material.tags.length, Object.keys(material.surface.areas).length]).toEqual([2, 0, 0]);
    const step = { path: ['surface', 'nodes', 'n', 'x'], value: 5 };
    expect(applyChanges(material, [step]).surface.nodes['n']?.x).toBe(5);
    const set = readDocument({
      format: 'brelvin-set',
      version: 1,
      name: 's',
      meshes: { mesh: { shape: 'cube', numbers: {}, smooth: false } },
    });
    expect((set as StageSet).meshes['mesh']?.placing.scale as object).toEqual([1, 1, 1]);
    expect((set as StageSet).views as object).toEqual({});
  });

  it('takes a rig of one sun on to one of many lights; what changed it before still does', () => {
    const old = {
      format: 'brelvin-light-rig',
      version: 1,
      name: 'Old quay',
      sun: { direction: [0, 1, 0], colour: [1, 0.5, 0.25], intensity: 2 },
      ambient: { colour: [1, 1, 1], intensity: 0.1 },
      background: [0, 0, 0],
      exposure: 1,
    };
    const rig = readDocument(old) as LightRig;
    expect([rig.version, rig.tags.length, rig.sun.intensity, rig.sun.on, rig.ambient.kind, rig.curve]).toEqual([
      3,
      0,
      2,
      true,
      'ambient',
      'none',
    ]);
    expect(rig.sun.colour as object).toEqual([1, 0.5, 0.25]);
    const step = { path: ['sun', 'direction'], value: [1, 0, 0] };
    expect(applyChanges(rig, [step]).sun.direction as object).toEqual([1, 0, 0]);
    expect(readDocument(applyChanges(rig, [step]))).toEqual(applyChanges(rig, [step]));
  });

  it('refuses lights that cannot shine', () => {
    const broken = (change: object): LightRig => ({ ...newRig('r'), sun: { ...newRig('r').sun, ...change } });
    for (const change of [{ intensity: -1 }, { intensity: NaN }, { range: 0 }, { kind: 'laser' }, { cone: [0] }, { colour: [1, 1] }]) {
      expect(() => readDocument(broken(change)))
        .withContext(JSON.stringify(change))
        .toThrowError(InvalidDocument, /sun/);
    }
    const lights = Object.fromEntries(Array.from({ length: 100 }, (_, order) => [`l${order}`, newRig('r').sun]));
    expect(() => readDocument({ ...newRig('r'), lights })).toThrowError(InvalidDocument, /lights/);
  });

  it('lists at most twenty problems', () => {
    const nodes = Object.fromEntries(Array.from({ length: 100 }, (_, index) => [`n${index}`, {}]));
    try {
      readDocument(changed({ surface: { nodes, ribbons: {} } }));
      fail('should have thrown');
    } catch (error) {
      expect((error as InvalidDocument).problems.length).toBeLessThanOrEqual(24);
    }
  });
});

describe('parseDocument', () => {
  const text = JSON.stringify(newMaterial('Lantern'));

  it('tells a file that was cut off from one that is something else', () => {
    expect(() => parseDocument(text.slice(0, -20))).toThrowError(InvalidDocument, /cut off/);
    expect(() => parseDocument('<svg/>')).toThrowError(InvalidDocument, /not JSON/);
    expect(() => parseDocument('')).toThrowError(InvalidDocument);
  });

  it('never throws anything else, wherever a file is cut or bent', () => {
    for (let length = 0; length < text.length; length += 11) {
      for (const bent of [text.slice(0, length), text.slice(0, length) + '0' + text.slice(length + 1)]) {
        try {
          parseDocument(bent);
        } catch (error) {
          expect(error).toBeInstanceOf(InvalidDocument);
        }
      }
    }
  });
});

describe('toJsonSchema', () => {
  /** Enough of JSON Schema to hold our own tables against. */
  function fits(schema: Record<string, unknown>, value: unknown): boolean {
    if (schema['anyOf']) return (schema['anyOf'] as Record<string, unknown>[]).some((each) => fits(each, value));
    if (schema['enum']) return (schema['enum'] as unknown[]).includes(value);
    if (schema['type'] === 'object') {
      if (typeof value !== 'object' || value === null || Array.isArray(value)) return false;
      const properties = (schema['properties'] ?? {}) as Record<string, Record<string, unknown>>;
      const required = (schema['required'] ?? []) as string[];
      const other = schema['additionalProperties'];
      return (
        required.every((key) => key in value) &&
        Object.entries(value).every(([key, each]) =>
          properties[key] ? fits(properties[key], each) : typeof other === 'object' && fits(other as Record<string, unknown>, each),
        )
      );
    }
    if (schema['type'] === 'array')
      return (
        Array.isArray(value) &&
        value.length >= Number(schema['minItems']) &&
        value.every((each) => fits(schema['items'] as Record<string, unknown>, each))
      );
    return typeof value === (schema['type'] === 'integer' ? 'number' : schema['type']);
  }

  it('describes every demo document', () => {
    for (const { document } of DEMO_DOCUMENTS) expect(fits(toJsonSchema(DOCUMENT_KINDS[kindOf(document)].schema), document)).toBeTrue();
  });

  it('does not describe damaged ones', () => {
    const damaged: Record<string, unknown> = { ...(DEMO_DOCUMENTS.at(-1)!.document as Material), surface: 4 };
    expect(fits(toJsonSchema(DOCUMENT_KINDS.material.schema), damaged)).toBeFalse();
  });
});

import type { MaterialImage, Material, LightRig, RigEnvironment, MeshSource, StageSet } from '@brelvin/contract';
import { library } from '../catalogue/library';
import { newCodeMaterial } from '../compile/code/new-code';
import { compileMaterial } from '../compile/compile-material';
import { resolveGraph } from '../compile/resolve';
import { silence } from '../document/material-edits';
import { newLight } from '../document/new-lights';
import { FIRST_ENVIRONMENT } from '../document/rig-edits';
import { newMaterial, newRig, newSet } from '../document/new-documents';
import { applyChanges } from '../document/transaction';
import { DEMO_DOCUMENTS } from '../demo/demo-documents';
import { demoSet } from '../demo/demo-scenes';
import { countingIds, edited, materialOf } from '../testing/graphs';
import { NO_SEAMS } from '../maps/image-seams';
import { silenceKey, type Check, type CheckInput, type Finding } from './check';
import { CHECKS, runChecks } from './run-checks';

type Around = Pick<CheckInput, 'rig' | 'seenThrough' | 'images'>;

function inputOf(material: Material, set?: StageSet, missing: ReadonlyMap<string, string> = new Map(), around: Around = {}): CheckInput {
  return {
    material,
    resolved: resolveGraph(material, library()),
    catalogue: library(),
    set,
    missingMaterials: missing,
    bench: 'bench',
    ...around,
    newId: countingIds(),
  };
}

function found(check: string, material: Material, set?: StageSet, missing?: ReadonlyMap<string, string>, around?: Around): Finding[] {
  return runChecks(inputOf(material, set, missing, around)).findings.filter((finding) => finding.check === check);
}

const image: MaterialImage = {
  name: 'Label',
  asset: 'a'.repeat(64),
  width: 4,
  height: 4,
  role: 'colour',
  wrapX: 'repeat',
  wrapY: 'repeat',
  filter: 'smooth',
  uvSet: 0,
};

const withImage = (material: Material, change: Partial<MaterialImage> = {}): Material => ({
  ...material,
  images: { pic: { ...image, ...change } },
  surface: {
    ...material.surface,
    nodes: Object.fromEntries(
      Object.entries(material.surface.nodes).map(([id, node]) => [id, node.kind === 'image' ? { ...node, image: 'pic' } : node]),
    ),
  },
});

/** Materials and sets with exactly one mistake, by check. */
const MISTAKES: Readonly<Record<string, { material: Material; set?: StageSet; missing?: ReadonlyMap<string, string>; around?: Around }>> = {
  'open-dock': { material: materialOf({ l: 'lambert' }) },
  'part-material': {
    material: newMaterial('m'),
    set: { ...newSet('s', 'puppetHead'), partRules: { r: { order: 0, pattern: 'eyes', material: 'gone', values: {} } } },
    missing: new Map([['gone', 'There is no document gone.']]),
  },
  direction: {
    material: materialOf({ n: 'normal', m: ['multiply', { b: -1 }], l: 'lambert' }, { 'm.a': 'n', 'l.normal': 'm', 'dock.colour': 'l' }),
  },
  'unit-vector': {
    material: materialOf(
      { n: 'normal', p: 'position', s: 'add', l: 'lambert' },
      { 's.a': 'n', 's.b': 'p', 'l.normal': 's', 'dock.colour': 'l' },
    ),
  },
  'clamped-cosine': {
    material: materialOf(
      { s: 'sun', n: 'normal', d: 'dot', c: 'colour', m: 'multiply' },
      { 'd.a': 's.direction', 'd.b': 'n', 'm.a': 'd', 'm.b': 'c', 'dock.colour': 'm' },
    ),
  },
  'image-role': {
    material: withImage(materialOf({ i: 'image', p: 'power', r: 'rim' }, { 'p.a': 'i.red', 'r.strength': 'p', 'dock.colour': 'r' })),
  },
  range: { material: materialOf({ l: ['lambert', { base: [1.4, 0.2, 0.2] }] }, { 'dock.colour': 'l' }) },
  empty: { material: materialOf({ p: 'place', r: ['remap', { inLow: 2, inHigh: 2 }] }, { 'r.value': 'p.y', 'dock.colour': 'r' }) },
  'no-effect': { material: materialOf({ r: ['rim', { strength: 0, power: 3 }] }, { 'dock.colour': 'r' }) },
  albedo: { material: materialOf({ s: ['physicalSurface', { baseColour: [0.97, 0.95, 0.9] }] }, { 'dock.colour': 's' }) },
  environment: { material: newMaterial('m'), around: { rig: around({ intensity: 0 }) } },
  'shell-shadow': {
    material: newMaterial('m'),
    set: newSet('s', 'lamp'),
    around: { rig: { ...newRig('r'), sun: newLight('sun', { casts: true }) }, seenThrough: new Map([['bench', 'glass']]) },
  },
  'behind-glass': {
    material: { ...materialOf({ l: 'lambert', o: 'place' }, { 'dock.colour': 'l', 'dock.opacity': 'o.y' }) },
    set: { ...newSet('s', 'lamp'), partRules: { r: { order: 0, pattern: 'chimney', material: 'glass', values: {} } } },
    around: { seenThrough: new Map([['glass', 'glass']]) },
  },
  'depth-offset': {
    material: newMaterial('m'),
    set: { ...newSet('s', 'puppetHead'), partRules: { r: { order: 0, pattern: 'eyes', values: {}, depthOffset: 1.5 } } },
  },
  'inside-out': {
    material: newMaterial('m'),
    set: {
      ...newSet('s'),
      meshes: {
        ball: {
          ...newSet('s', 'surface').meshes['mesh']!,
          formula: 'vec3(sin(3.1416 * v) * cos(6.2832 * u), cos(3.1416 * v), sin(3.1416 * v) * sin(6.2832 * u))',
        },
      },
    },
  },
  'unnamed-image': {
    material: withImage(materialOf({ i: 'image', l: 'lambert' }, { 'l.base': 'i.colour', 'dock.colour': 'l' }), { name: ' ' }),
  },
  'held-image': {
    material: withImage(materialOf({ i: ['image', { repeat: [3, 1] }], l: 'lambert' }, { 'l.base': 'i.colour', 'dock.colour': 'l' }), {
      wrapX: 'clamp',
      wrapY: 'clamp',
    }),
  },
  'even-map': {
    material: withImage(materialOf({ i: 'image', s: 'physicalSurface' }, { 's.roughness': 'i.red', 'dock.colour': 's' }), { role: 'data' }),
    around: { images: new Map([[image.asset, { even: [0.25, undefined, undefined, 1], grey: false, seams: NO_SEAMS }]]) },
  },
  'normal-sense': {
    material: withImage(
      materialOf({ i: 'image', n: 'normalFromMap', l: 'lambert' }, { 'n.map': 'i.colour', 'l.normal': 'n', 'dock.colour': 'l' }),
      { role: 'data' },
    ),
    around: {
      images: new Map([[image.asset, { even: [], grey: false, seams: NO_SEAMS, normals: { green: 'down', certainty: 1 } }]]),
    },
  },
  'turned-normal-map': {
    material: withImage(
      materialOf(
        { t: ['uvTransform', { turn: 0.5 }], i: 'image', n: 'normalFromMap', l: 'lambert' },
        { 'i.uv': 't.uv', 'n.map': 'i.colour', 'l.normal': 'n', 'dock.colour': 'l' },
      ),
      { role: 'data' },
    ),
  },
  'below-zero': {
    material: materialOf(
      { s: 'sun', n: 'normal', d: 'dot', c: 'colour', m: 'mix' },
      { 'd.a': 's.direction', 'd.b': 'n', 'm.amount': 'd', 'm.b': 'c', 'dock.colour': 'm' },
    ),
  },
  'few-segments': {
    material: withImage(
      materialOf({ i: 'image', d: 'displaceByHeight', l: 'lambert' }, { 'd.height': 'i.red', 'dock.offset': 'd', 'dock.colour': 'l' }),
      { role: 'data' },
    ),
    set: newSet('s', 'cube'),
  },
  'open-edges': {
    material: materialOf({ o: 'offsetAlongNormal', l: 'lambert' }, { 'dock.offset': 'o', 'dock.colour': 'l' }),
    set: newSet('s', 'cube'),
  },
  'unused-node': { material: materialOf({ l: 'lambert', idle: 'sine' }, { 'dock.colour': 'l' }) },
};

function around(changes: Partial<RigEnvironment>): LightRig {
  return { ...newRig('r'), environment: { name: 'Quay', assets: ['a'.repeat(64)], ...FIRST_ENVIRONMENT, ...changes } };
}

/** How the material on the Bench is seen through follows from it. */
function seen(material: Material, { rig, seenThrough, images }: Around = {}): Around {
  const compiled = compileMaterial(material).compiled;
  const own = compiled?.opacity ?? seenThrough?.get('bench');
  return { rig, images, seenThrough: new Map([...(seenThrough ?? []), ...(own ? [['bench', own] as const] : [])]) };
}

describe('Checks', () => {
  for (const [check, { material, set, missing, around: given }] of Object.entries(MISTAKES)) {
    const around = seen(material, given);
    it(`${check}: is found, explained, and gone after its mend`, () => {
      const [finding, ...others] =
        check === 'shell-shadow' ? found(check, material, set, missing, around).slice(0, 1) : found(check, material, set, missing, around);
      expect(others).toEqual([]);
      expect(finding?.title.length).toBeGreaterThan(15);
      expect(finding?.explanation.length).toBeGreaterThan(60);
      const mend = finding?.mend;
      expect(mend).toBeDefined();
      const mended = mend?.document === 'material' ? edited(material, mend.edit) : material;
      const mendedSet = mend?.document === 'set' && set ? applyChanges(set, mend.edit.changes) : set;
      const mendedRig = mend?.document === 'rig' && around.rig ? applyChanges(around.rig, mend.edit.changes) : around.rig;
      const left = found(check, mended, mendedSet, missing, seen(mended, { ...given, rig: mendedRig }));
      expect(left.filter(({ place }) => place === finding?.place)).toEqual([]);
      expect(compileMaterial(mended).problems).toEqual([]);
    });

    it(`${check}: can be switched off for its place`, () => {
      const [finding] = found(check, material, set, missing, around);
      const silent = edited(material, silence(silenceKey(finding!), true));
      expect(found(check, silent, set, missing, around).filter(({ place }) => place === finding?.place)).toEqual([]);
      expect(runChecks(inputOf(silent, set, missing, around)).silenced).toBeGreaterThan(0);
    });
  }

  for (const [what, node, words] of [
    ['a gradient without stops', ['gradient', { stops: [] }], /no stop/],
    ['a gradient with one', ['gradientSteps', { stops: [1, 0, 0, 0.5] }], /single stop/],
    ['a wave that runs nowhere', ['waveOffset', { along: [0, 0, 0] }], /points nowhere/],
  ] as const)
    it(`empty: ${what} is said and mended`, () => {
      const material = materialOf({ n: [node[0], node[1]] }, { 'dock.colour': 'n' });
      const [finding, ...others] = found('empty', material);
      expect(others).toEqual([]);
      expect(finding?.title).toMatch(words);
      expect(found('empty', edited(material, finding!.mend!.edit))).toEqual([]);
      expect(compileMaterial(material).problems).toEqual([]);
    });

  it('image-count: is said when there are more images than a surface can read', () => {
    const nodes = Object.fromEntries(Array.from({ length: 12 }, (_, index) => [`i${index}`, 'image']));
    const sums = Object.fromEntries(Array.from({ length: 12 }, (_, index) => [`s${index}`, 'add']));
    const ribbons: Record<string, string> = {};
    for (let index = 0; index < 12; index++) {
      ribbons[`s${index}.a`] = `i${index}.colour`;
      ribbons[index === 11 ? 'dock.colour' : `s${index + 1}.b`] = `s${index}`;
    }
    const plain = materialOf({ ...nodes, ...sums }, ribbons);
    const material: Material = {
      ...plain,
      images: Object.fromEntries(Object.keys(nodes).map((id) => [id, { ...image, name: id, asset: id.padEnd(64, '0') }])),
      surface: {
        ...plain.surface,
        nodes: Object.fromEntries(
          Object.entries(plain.surface.nodes).map(([id, node]) => [id, node.kind === 'image' ? { ...node, image: id } : node]),
        ),
      },
    };
    expect(found('image-count', material)[0]?.title).toContain('12 images');
    expect(compileMaterial(material).problems[0]?.message).toContain('11 different images');
  });

  it('held-image: tells which way, mends only that, and is quiet where an image stands once', () => {
    const standing = (repeat: readonly number[]): Material =>
      withImage(materialOf({ i: ['image', { repeat }], l: 'lambert' }, { 'l.base': 'i.colour', 'dock.colour': 'l' }), {
        wrapX: 'clamp',
        wrapY: 'clamp',
      });
    const [finding] = found('held-image', standing([1, -2]));
    expect(finding?.title).toContain('“Label” is repeated above each other');
    const { wrapX, wrapY } = edited(standing([1, -2]), finding!.mend!.edit).images['pic']!;
    expect([wrapX, wrapY]).toEqual(['clamp', 'repeat']);
    expect(found('held-image', standing([1, 0.5]))).toEqual([]);
  });

  it('direction: tells kinds apart, and follows through what keeps a direction', () => {
    const mixedUp = materialOf(
      { s: 'sun', u: 'normalize', f: 'facing', r: 'rim' },
      { 'u.value': 's.direction', 'f.toEye': 'u', 'r.strength': 'f', 'dock.colour': 'r' },
    );
    expect(found('direction', mixedUp)[0]?.title).toContain('wants a direction towards the eye, but gets a direction towards the light');
    const twice = materialOf(
      { n: 'normal', a: ['multiply', { b: -1 }], b: ['multiply', { b: -1 }], l: 'lambert' },
      { 'a.a': 'n', 'b.a': 'a', 'l.normal': 'b', 'dock.colour': 'l' },
    );
    expect(found('direction', twice)).toEqual([]);
  });

  it('travelling: tells what is mirrored the wrong way round, and turns it', () => {
    const mirrored = (turn?: number): Material =>
      turn === undefined
        ? materialOf({ s: 'sun', r: 'reflect', l: 'normalAsColour' }, { 'r.direction': 's.direction', 'l.normal': 'r', 'dock.colour': 'l' })
        : materialOf(
            { s: 'viewDirection', t: ['multiply', { b: turn }], r: 'reflect', l: 'normalAsColour' },
            { 't.a': 's', 'r.direction': 't', 'l.normal': 'r', 'dock.colour': 'l' },
          );
    const [finding] = found('travelling', mirrored());
    expect(finding?.title).toBe('Reflect gets a direction towards the light, but wants one that travels to the surface.');
    expect(found('travelling', edited(mirrored(), finding!.mend!.edit))).toEqual([]);
    expect(found('travelling', mirrored(-1))).toEqual([]);
    expect(found('travelling', mirrored(2)).length).toBe(1);
  });

  it('travelling: puts the normal where it belongs when the two were swapped', () => {
    const swapped = materialOf(
      { s: 'viewDirection', t: ['multiply', { b: -1 }], n: 'normal', r: 'reflect', l: 'normalAsColour' },
      { 't.a': 's', 'r.direction': 'n', 'r.normal': 't', 'l.normal': 'r', 'dock.colour': 'l' },
    );
    const [finding] = found('travelling', swapped);
    expect(finding?.title).toContain('gets the surface’s normal as the direction');
    const mended = edited(swapped, finding!.mend!.edit);
    expect(mended.surface.ribbons['r.direction']?.from).toBe('t');
    expect(mended.surface.ribbons['r.normal']?.from).toBe('n');
    expect([...found('travelling', mended), ...found('direction', mended)]).toEqual([]);
  });

  it('below-zero: a wave is remapped, so that nothing of it is lost', () => {
    const wave = materialOf({ s: 'sine', m: 'mix' }, { 'm.amount': 's', 'dock.colour': 'm' });
    const [finding] = found('below-zero', wave);
    expect(finding?.mend?.label).toBe('Remap it to 0…1');
    const mended = edited(wave, finding!.mend!.edit);
    expect(found('below-zero', mended)).toEqual([]);
    expect(Object.values(mended.surface.nodes).find(({ kind }) => kind === 'remap')?.values).toEqual({ inLow: -1, inHigh: 1 });
  });

  it('inside-out: of a file is turned by a switch of its own, and back', () => {
    const source = {
      asset: 'a'.repeat(64),
      file: 'crate.glb',
      parts: ['crate'],
      triangles: 12,
      made: [],
      gap: 0.1,
      mirrored: false,
      inwards: true,
      bounds: { low: [0, 0, 0], high: [1, 1, 1] },
    };
    const set: StageSet = {
      ...newSet('s'),
      meshes: { crate: { ...newSet('s').meshes['mesh']!, shape: 'imported', name: 'Crate', source } },
    };
    const [finding] = found('inside-out', newMaterial('m'), set);
    expect(finding?.title).toBe('“Crate” is inside out.');
    const mended = applyChanges(set, finding!.mend!.edit.changes);
    expect(mended.meshes['crate']?.turned).toBeTrue();
    expect(found('inside-out', newMaterial('m'), mended)).toEqual([]);
  });

  it('no-effect: says that metal lets nothing through, whatever its transmission', () => {
    const plain = materialOf({ s: ['physicalSurface', { metallic: 1 }] }, { 'dock.colour': 's' });
    const node = plain.surface.nodes['s']!;
    const glass = { ...plain, surface: { ...plain.surface, nodes: { s: { ...node, features: ['hasTransmission'] } } } };
    const [finding] = found('no-effect', glass);
    expect(finding?.title).toContain('“Transmission” has no effect now, because “Metallic” is 1');
    expect(found('no-effect', plain)).toEqual([]);
    expect(found('no-effect', edited(glass, finding!.mend!.edit))).toEqual([]);
  });

  for (const [name, value] of [
    ['ior', 0.7],
    ['metallic', 1.4],
  ] as const)
    it(`range: ${name} of ${value} is said and mended`, () => {
      const plain = materialOf({ s: ['physicalSurface', { [name]: value }] }, { 'dock.colour': 's' });
      const node = plain.surface.nodes['s']!;
      const material = { ...plain, surface: { ...plain.surface, nodes: { s: { ...node, features: ['hasSpecular'] } } } };
      const [finding] = found('range', material);
      expect(finding?.title).toContain(`is ${value}, outside of`);
      expect(found('range', edited(material, finding!.mend!.edit))).toEqual([]);
    });

  it('albedo: looks into the colour node before it, knows metals, and leaves glass alone', () => {
    const dark = (metallic: number, features?: readonly string[]): Material => {
      const plain = materialOf(
        { c: ['colour', { value: [0.1, 0.1, 0.1] }], s: ['physicalSurface', { metallic }] },
        { 's.baseColour': 'c', 'dock.colour': 's' },
      );
      const node = plain.surface.nodes['s']!;
      return {
        ...plain,
        surface: { ...plain.surface, nodes: { ...plain.surface.nodes, s: { ...node, ...(features ? { features } : {}) } } },
      };
    };
    expect(found('albedo', dark(0))).toEqual([]);
    const [finding] = found('albedo', dark(1));
    expect(finding?.title).toContain('too dark for a real metal');
    expect(edited(dark(1), finding!.mend!.edit).surface.nodes['c']?.values['value']).toEqual([0.35, 0.35, 0.35]);
    expect(found('albedo', dark(1, ['hasTransmission']))).toEqual([]);
  });

  it('environment: says what is chosen and not used; a background beside lamps is fine', () => {
    const said = (changes: Partial<RigEnvironment>, rig: Partial<LightRig> = {}): number =>
      found('environment', newMaterial('m'), undefined, undefined, { rig: { ...around(changes), ...rig } }).length;
    const dark = { sun: newLight('sun', { on: false }), ambient: newLight('ambient', { on: false }) };
    expect([said({}), said({ lights: false }), said({ lights: false, shows: false }), said({ lights: false }, dark)]).toEqual([0, 0, 1, 1]);
  });

  it('say nothing about what is right', () => {
    for (const { id, document } of DEMO_DOCUMENTS) {
      if (document.format !== 'brelvin-material') continue;
      expect(runChecks({ ...inputOf(document, demoSet(document.seenIn.set)), bench: id }).findings.map((finding) => finding.title))
        .withContext(id)
        .toEqual([]);
    }
    expect(runChecks(inputOf(newMaterial('m'), newSet('s'))).findings).toEqual([]);
  });

  it('have an id each', () => {
    expect(new Set(CHECKS.map((check) => check.id)).size).toBe(CHECKS.length);
  });

  describe('of imported meshes', () => {
    const source = {
      asset: 'c'.repeat(64),
      file: 'kite.glb',
      parts: ['sail'],
      triangles: 2,
      gap: 0.5,
      mirrored: false,
      bounds: { low: [0, 0, 0], high: [1, 1, 1] },
    };
    const standing = (change: Partial<MeshSource> = {}): StageSet => {
      const plain = newSet('s', 'imported');
      return { ...plain, meshes: { mesh: { ...plain.meshes['mesh']!, name: 'Kite', source: { ...source, made: [], ...change } } } };
    };
    const bumps = withImage(
      materialOf({ i: 'image', n: 'normalFromMap', l: 'lambert' }, { 'n.map': 'i.colour', 'l.normal': 'n', 'dock.colour': 'l' }),
      { role: 'data' },
    );

    it('say when UVs, tangents or second UVs that matter were made', () => {
      expect(found('made-for-mesh', bumps, standing())).toEqual([]);
      expect(found('made-for-mesh', bumps, standing({ made: ['uvs', 'tangents'] }))[0]?.title).toContain('has no UVs');
      expect(found('made-for-mesh', bumps, standing({ made: ['tangents'] }))[0]?.title).toContain('has no tangents');
      const occluded = { ...bumps, images: { pic: { ...image, uvSet: 1 } } };
      const [finding, ...others] = found('made-for-mesh', occluded, standing({ made: ['secondUvs'] }));
      expect(others).toEqual([]);
      expect(finding?.title).toContain('lies on the second UVs');
      expect(found('made-for-mesh', edited(occluded, finding!.mend!.edit), standing({ made: ['secondUvs'] }))).toEqual([]);
    });

    it('do not care what a plain material does not read', () => {
      const plain = materialOf({ l: 'lambert' }, { 'dock.colour': 'l' });
      expect(found('made-for-mesh', plain, standing({ made: ['uvs', 'tangents', 'secondUvs'] }))).toEqual([]);
      expect(found('mirrored-uvs', plain, standing({ mirrored: true }))).toEqual([]);
    });

    it('say where a normal map may show a seam', () => {
      expect(found('mirrored-uvs', bumps, standing({ mirrored: true }))[0]?.title).toContain('mirrored UVs');
      expect(found('mirrored-uvs', bumps, standing())).toEqual([]);
    });

    it('have no more segments to offer', () => {
      const { material } = MISTAKES['few-segments']!;
      const [finding] = found('few-segments', material, standing());
      expect(finding?.title).toContain('about 2 vertices');
      expect(finding?.mend).toBeUndefined();
      expect(found('few-segments', material, standing({ gap: 0.001 }))).toEqual([]);
    });
  });

  it('open-edges: only where normals part, and only of what moves vertices', () => {
    const along = (ribbons: Record<string, string>): Material =>
      materialOf({ n: 'normal', w: 'weldedNormal', o: 'wobbleOffset', l: 'lambert' }, { 'dock.colour': 'l', ...ribbons });
    const moved = along({ 'dock.offset': 'o', 'o.normal': 'n', 'l.normal': 'w' });
    const cube = newSet('s', 'cube');
    expect(found('open-edges', moved, newSet('s', 'sphere'))).toEqual([]);
    const [finding] = found('open-edges', moved, cube);
    expect(finding?.place).toBe('o/normal');
    expect(finding?.title).toContain('Wobble moves vertices along the plain normal: “Cube” opens');
    expect(edited(moved, finding!.mend!.edit).surface.ribbons['o.normal']?.from).not.toBe('n');
    expect(found('open-edges', edited(moved, finding!.mend!.edit), cube)).toEqual([]);
    expect(found('open-edges', along({ 'dock.offset': 'o', 'o.normal': 'w', 'l.normal': 'n' }), cube)).toEqual([]);
    expect(found('open-edges', along({ 'l.normal': 'n' }), cube)).toEqual([]);
  });

  it('open-edges: also of a material that is written, through locals, and only of what moves vertices', () => {
    const cube = newSet('s', 'cube');
    const written = (body: string): Material =>
      newCodeMaterial(
        'written',
        {},
        { text: `vec4 paint(Surface s) { return vec4(s.normal, 1.0); }\nvoid shape(inout Shape v) {\n  ${body}\n}` },
      );
    const moved = written('vec3 along = v.normal * 0.5;\n  vec3 far = along * 0.2;\n  v.position += far;');
    const [finding, ...others] = found('open-edges', moved, cube);
    expect(others).toEqual([]);
    expect(finding?.title).toContain('Line 3: “shape” moves vertices along the plain normal, and “Cube” opens');
    const mended = edited(moved, finding!.mend!.edit);
    expect(mended.code?.text).toContain('vec3 along = surfaceWeldedNormal() * 0.5;');
    expect(mended.code?.text).withContext('what is painted stays').toContain('vec4(s.normal, 1.0)');
    const { compiled, problems } = compileMaterial(mended);
    expect(problems).toEqual([]);
    expect(compiled?.welded).toBeTrue();
    expect(found('open-edges', mended, cube)).toEqual([]);
    expect(found('open-edges', moved, newSet('s', 'sphere'))).toEqual([]);
    expect(found('open-edges', written('v.position.y += v.normal.y * 0.1;'), cube).length).toBe(1);
    expect(found('open-edges', written('vec3 up = v.normal; v.position.y += 0.1; v.normal = up;'), cube)).toEqual([]);
    expect(found('open-edges', written('v.position += vec3(0.0, v.uv.x, 0.0);'), cube)).toEqual([]);
    expect(found('open-edges', written('v.position += v.normal'), cube))
      .withContext('a text with an error')
      .toEqual([]);
  });

  it('map-sizes: says when maps of one surface differ in shape, or much in size', () => {
    const plain = materialOf(
      { a: 'image', b: 'image', s: 'physicalSurface' },
      { 's.baseColour': 'a.colour', 's.roughness': 'b.red', 'dock.colour': 's' },
    );
    const nodes = Object.fromEntries(
      Object.entries(plain.surface.nodes).map(([id, node]) => [id, node.kind === 'image' ? { ...node, image: id } : node]),
    );
    const sized = (width: number, height: number): Material => ({
      ...plain,
      surface: { ...plain.surface, nodes },
      images: {
        a: { ...image, width: 1024, height: 1024 },
        b: { ...image, name: 'Rough', asset: 'b'.repeat(64), role: 'data', width, height },
      },
    });
    expect(found('map-sizes', sized(1024, 1024))).toEqual([]);
    expect(found('map-sizes', sized(512, 512))).toEqual([]);
    expect(found('map-sizes', sized(1024, 512))[0]?.title).toContain('“Rough” has 1024 × 512');
    expect(found('map-sizes', sized(128, 128))[0]?.title).toContain('128 × 128');
  });

  it('no-effect: also sees a map that is one value everywhere', () => {
    const plain = withImage(materialOf({ i: 'image', s: 'physicalSurface' }, { 's.metallic': 'i.blue', 'dock.colour': 's' }), {
      role: 'data',
    });
    const node = plain.surface.nodes['s']!;
    const glass = {
      ...plain,
      surface: { ...plain.surface, nodes: { ...plain.surface.nodes, s: { ...node, features: ['hasTransmission'] } } },
    };
    const white = { images: new Map([[image.asset, { even: [undefined, undefined, 1, 1], grey: false, seams: NO_SEAMS }]]) };
    const [finding] = found('no-effect', glass, undefined, undefined, white);
    expect(finding?.title).toContain('because the map of “Metallic” is 1 everywhere');
    expect(found('no-effect', edited(glass, finding!.mend!.edit), undefined, undefined, white)).toEqual([]);
    expect(found('no-effect', glass)).toEqual([]);
  });
});

describe('A check that throws', () => {
  it('is told of, and the others are made', () => {
    const broken: Check = {
      ...CHECKS[0]!,
      id: 'broken',
      find: () => {
        throw new TypeError('nothing there');
      },
    };
    const material = materialOf({ colour: 'colour', lone: 'colour' }, { 'dock.colour': 'colour' });
    const { findings, faults } = runChecks(inputOf(material, newSet('s')), [broken, ...CHECKS]);
    expect(faults.map(({ check, message }) => [check, message])).toEqual([['broken', 'nothing there']]);
    expect(findings.map(({ check }) => check)).toContain('unused-node');
  });
});

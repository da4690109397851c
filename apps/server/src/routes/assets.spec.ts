import { createHash } from 'node:crypto';
import { MESH_TYPE, type Material, type PartRule, type StageSet } from '@brelvin/contract';
import { buildMesh, newMaterial, newMesh, newRig, newSet, readBrelvinFile, writeMeshFile, writeRadiance } from '@brelvin/core';
import type { LightMyRequestResponse } from 'fastify';
import { demoEnvironments, demoImages } from '@brelvin/io/node';
import { TestServer } from '../testing/test-server';

/** Files of the workspace over HTTP, on a real PostgreSQL. */
describe('Images in the workspace', () => {
  let server: TestServer;

  beforeAll(async () => (server = await TestServer.start()));

  afterAll(() => server.stop());

  const sha = (file: Buffer): string => createHash('sha256').update(file).digest('hex');
  const announce = (sha256: string, size: number, type = 'image/png'): Promise<LightMyRequestResponse> =>
    server.send('POST', '/assets', { sha256, name: 'label.png', type, size });
  const chunk = (sha256: string, number: number, content: Buffer): Promise<LightMyRequestResponse> =>
    server.send('PUT', `/assets/${sha256}/chunks/${number}`, content, { 'content-type': 'application/octet-stream' });
  const label = demoImages()[0]!.file;

  async function keep(file: Buffer, type = 'image/png', address = sha(file)): Promise<LightMyRequestResponse> {
    await announce(address, file.length, type);
    await chunk(address, 0, file);
    return server.send('POST', `/assets/${address}/finish`);
  }

  it('are kept once by their content, and read back as they are', async () => {
    expect((await announce(sha(label), label.length)).json()).toEqual({ missing: [0] });
    expect((await chunk(sha(label), 0, label)).statusCode).toBe(204);
    expect((await server.send('POST', `/assets/${sha(label)}/finish`)).json<{ width: number }>().width).toBe(128);
    expect((await announce(sha(label), label.length)).json()).toEqual({ missing: [] });
    const answer = await server.send('GET', `/assets/${sha(label)}`);
    expect(answer.rawPayload.equals(label)).toBeTrue();
    expect(answer.headers['content-type']).toBe('image/png');
    expect((await server.send('GET', '/assets?search=label')).json<{ total: number }>().total).toBe(1);
  });

  it('are renamed, tagged, found by tag, and taken off the shelf while their content stays', async () => {
    await keep(label);
    const change = (body: object): Promise<LightMyRequestResponse> => server.send('PATCH', `/assets/${sha(label)}`, body);
    const listed = async (query: string): Promise<string[]> =>
      (await server.send('GET', `/assets?${query}`)).json<{ assets: { name: string }[] }>().assets.map((asset) => asset.name);
    expect((await change({ name: 'Tern on a rope', tags: ['label', 'bird'] })).json<{ tags: string[] }>().tags).toEqual(['label', 'bird']);
    expect((await server.send('GET', '/assets/tags')).json<{ tags: object[] }>().tags).toEqual(
      jasmine.arrayWithExactContents([
        { tag: 'bird', count: 1 },
        { tag: 'label', count: 1 },
      ]),
    );
    expect([await listed('tag=bird'), await listed('tag=fish'), await listed('search=rope&sort=name')]).toEqual([
      ['Tern on a rope'],
      [],
      ['Tern on a rope'],
    ]);
    expect((await change({ deleted: true })).statusCode).toBe(200);
    expect([await listed('tag=bird'), await listed('deleted=true')]).toEqual([[], ['Tern on a rope']]);
    expect((await server.send('GET', `/assets/${sha(label)}`)).rawPayload.equals(label))
      .withContext('still read by what shows it')
      .toBeTrue();
    await announce(sha(label), label.length);
    expect(await listed('tag=bird'))
      .withContext('back when it is sent again')
      .toEqual(['Tern on a rope']);
    await change({ deleted: true });
    await change({ deleted: false });
    expect(await listed('search=tern')).toEqual(['Tern on a rope']);
  });

  it('say what is wrong with a change', async () => {
    const answer = await server.send('PATCH', `/assets/${sha(label)}`, { name: '', tags: ['x'.repeat(41)], colour: 1 });
    expect([answer.statusCode, answer.json<{ message: string }>().message]).toEqual([400, jasmine.stringMatching(/name.*/)]);
    expect((await server.send('PATCH', `/assets/${'ef'.repeat(32)}`, { name: 'x' })).statusCode).toBe(404);
  });

  it('are refused when they are not what they claim', async () => {
    const wrong = await keep(label, 'image/png', 'ab'.repeat(32));
    expect([wrong.statusCode, wrong.json<{ message: string }>().message]).toEqual([422, jasmine.stringContaining('damaged on its way')]);
    const script = Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>');
    expect((await keep(script)).json<{ message: string }>().message).toMatch(/no PNG, JPEG or WebP image/);
    expect((await announce(sha(script), script.length, 'image/svg+xml')).statusCode).toBe(400);
    const huge = Buffer.from(label);
    huge.writeUInt32BE(60_000, 16);
    huge.writeUInt32BE(60_000, 20);
    expect((await keep(huge)).json<{ message: string }>().message).toContain('60000 × 60000');
    expect((await announce('cd'.repeat(32), 2_000_000_000)).statusCode).toBe(400);
    expect((await server.send('GET', `/assets/${sha(script)}`)).statusCode).toBe(404);
  });

  it('may be environments, which are listed apart and refused by their own heads', async () => {
    const { file, sha256 } = demoEnvironments()[0]!;
    await announce(sha256, file.length, 'image/vnd.radiance');
    for (let number = 0; number * 2 ** 20 < file.length; number++)
      await chunk(sha256, number, file.subarray(number * 2 ** 20, (number + 1) * 2 ** 20));
    const finished = (await server.send('POST', `/assets/${sha256}/finish`)).json<{ width: number; height: number }>();
    expect([finished.width, finished.height]).toEqual([1024, 512]);
    const types = async (query: string): Promise<Set<string>> =>
      new Set((await server.send('GET', `/assets?${query}`)).json<{ assets: { type: string }[] }>().assets.map(({ type }) => type));
    await keep(label);
    expect([...(await types('use=environment'))]).toEqual(['image/vnd.radiance']);
    expect((await types('use=image')).has('image/vnd.radiance')).toBeFalse();
    expect((await server.send('GET', '/assets?use=sound')).statusCode).toBe(400);
    const lying = Buffer.from('#?RADIANCE\nFORMAT=32-bit_rle_xyze\n\n-Y 4 +X 4\n');
    await announce(sha(lying), lying.length, 'image/vnd.radiance');
    await chunk(sha(lying), 0, lying);
    const answer = await server.send('POST', `/assets/${sha(lying)}/finish`);
    expect([answer.statusCode, answer.json<{ message: string }>().message]).toEqual([422, jasmine.stringContaining('CIE XYZ')]);
  });

  it('may be meshes, larger than images may be, refused where they are cut', async () => {
    const mesh = Buffer.from(writeMeshFile(buildMesh({ shape: 'cube', numbers: {}, smooth: false })));
    await announce(sha(mesh), mesh.length, MESH_TYPE);
    await chunk(sha(mesh), 0, mesh);
    expect((await server.send('POST', `/assets/${sha(mesh)}/finish`)).statusCode).toBe(200);
    const listed = async (use: string): Promise<string[]> =>
      (await server.send('GET', `/assets?use=${use}`)).json<{ assets: { sha256: string }[] }>().assets.map(({ sha256 }) => sha256);
    expect(await listed('mesh')).toEqual([sha(mesh)]);
    expect(await listed('image')).not.toContain(sha(mesh));
    expect((await server.send('GET', `/assets/${sha(mesh)}`)).rawPayload.equals(mesh)).toBeTrue();
    expect((await announce('ab'.repeat(32), 100 * 1024 * 1024, MESH_TYPE)).statusCode).toBe(200);
    expect((await announce('ac'.repeat(32), 100 * 1024 * 1024)).json<{ message: string }>().message).toContain('64 MiB');
    const cut = mesh.subarray(0, mesh.length - 8);
    await announce(sha(cut), cut.length, MESH_TYPE);
    await chunk(sha(cut), 0, cut);
    const answer = await server.send('POST', `/assets/${sha(cut)}/finish`);
    expect([answer.statusCode, answer.json<{ message: string }>().message]).toEqual([422, jasmine.stringContaining('damaged or cut off')]);
  });

  it('say which bytes are wrong or missing', async () => {
    const other = demoImages()[1]!.file;
    await announce(sha(other), other.length);
    const short = await chunk(sha(other), 0, other.subarray(0, 10));
    expect([short.statusCode, short.json<{ message: string }>().message]).toEqual([
      422,
      jasmine.stringContaining(`must have ${other.length} bytes`),
    ]);
    const early = await server.send('POST', `/assets/${sha(other)}/finish`);
    expect(early.json<{ message: string }>().message).toContain('not whole');
    await chunk(sha(other), 0, other);
    expect((await server.send('POST', `/assets/${sha(other)}/finish`)).statusCode).toBe(200);
    expect((await chunk('ef'.repeat(32), 0, other)).statusCode).toBe(404);
  });

  it('go out with their material in one file, or as links', async () => {
    await keep(label);
    const image = {
      name: 'Print',
      asset: sha(label),
      width: 128,
      height: 128,
      role: 'colour',
      wrapX: 'clamp',
      wrapY: 'clamp',
      filter: 'smooth',
      uvSet: 0,
    } as const;
    const material: Material = { ...newMaterial('Crate'), images: { p: image } };
    await server.send('POST', '/documents', { id: 'crate', document: material });
    const read = readBrelvinFile((await server.send('GET', '/documents/crate/file')).rawPayload);
    expect(Buffer.from(read.assets.get(sha(label))!.bytes).equals(label)).toBeTrue();
    expect(read.document as object).toEqual(material);
    expect(JSON.parse((await server.send('GET', '/documents/crate/file?images=links')).body)).toEqual(material);
  });

  it('go out with all that is seen with a material, and what is gone is left out', async () => {
    const mesh = Buffer.from(writeMeshFile(buildMesh({ shape: 'cube', numbers: {}, smooth: false })));
    const sky = Buffer.from(writeRadiance({ width: 2, height: 1, data: new Float32Array([1, 1, 1, 4, 4, 4]) }));
    await keep(label);
    await keep(mesh, MESH_TYPE);
    await keep(sky, 'image/vnd.radiance');
    const bounds = { low: [0, 0, 0], high: [1, 1, 1] };
    const source = { asset: sha(mesh), file: 'kite.glb', parts: ['side'], triangles: 12, made: [], gap: 1, mirrored: false, bounds };
    const rule = (material: string, order: number): PartRule => ({ order, pattern: 'side', material, values: {} });
    const set: StageSet = {
      ...newSet('Quay'),
      meshes: { kite: newMesh('imported', {}, { source }) },
      partRules: { a: rule('worn', 0), b: rule('never-there', 1) },
    };
    const environment = { name: 'Sky', assets: [sha(sky)], turn: 0, intensity: 1, lights: true, shows: true, blur: 0 };
    const rig = { ...newRig('Dusk'), environment };
    await server.send('POST', '/documents', { id: 'quay', document: set });
    await server.send('POST', '/documents', { id: 'dusk', document: rig });
    await server.send('POST', '/documents', { id: 'worn', document: newMaterial('Worn', { set: 'elsewhere' }) });
    await server.send('POST', '/documents', { id: 'whole', document: newMaterial('Whole', { set: 'quay', rig: 'dusk' }) });
    const file = async (path: string): Promise<ReturnType<typeof readBrelvinFile>> =>
      readBrelvinFile(new Uint8Array((await server.send('GET', `/documents/${path}`)).rawPayload));
    const whole = await file('whole/file?with=stage');
    expect([...whole.beside.keys()].sort()).toEqual(['dusk', 'quay', 'worn']);
    expect([...whole.assets.keys()].sort()).toEqual([sha(mesh), sha(sky)].sort());
    expect(Buffer.from(whole.assets.get(sha(mesh))!.bytes).equals(mesh)).toBeTrue();
    expect((await file('whole/file')).beside.size).toBe(0);
    // Sets and rigs go out too, with what they show themselves.
    expect([...(await file('dusk/file')).assets.keys()]).toEqual([sha(sky)]);
    expect([...(await file('quay/file?with=stage')).beside.keys()]).toEqual(['worn']);
  });
});

import { newCodeMaterial, newFunction, readBrelvinFile, renameFunction } from '@brelvin/core';
import { TestServer } from '../testing/test-server';

/** Functions of the Library over HTTP, on a real PostgreSQL. */
describe('The server keeps functions', () => {
  let server: TestServer;
  let made = 0;

  beforeAll(async () => {
    server = await TestServer.start();
  });

  afterAll(() => server.stop());

  async function keep(name: string, text = `float ${name}(float x) { return x; }`): Promise<string> {
    const id = `fn-${++made}`;
    const { statusCode, body } = await server.send('POST', '/documents', { id, document: newFunction(name, text) });
    expect(statusCode).withContext(body).toBe(201);
    return id;
  }

  interface Listed {
    readonly functions: readonly { readonly name: string; readonly text: string; readonly formerNames: readonly string[] }[];
  }

  it('with their texts, by name', async () => {
    await keep('tide');
    await keep('ebb');
    const { functions } = (await server.send('GET', '/functions')).json<Listed>();
    expect(functions.map(({ name }) => name)).toEqual(['ebb', 'tide']);
    expect(functions[1]?.text).toContain('float tide(');
  });

  it('and refuses a second one of the same name, also by renaming and restoring', async () => {
    const first = await keep('swell');
    const refused = await server.send('POST', '/documents', { id: 'fn-second', document: newFunction('swell') });
    expect([refused.statusCode, refused.json<{ error: string }>().error]).toEqual([422, 'name-taken']);
    const other = await keep('surge');
    const { changes } = renameFunction(newFunction('surge'), 'swell');
    expect((await server.append(other, 0, { id: 'r', label: 'Rename', changes })).statusCode).toBe(422);
    await server.send('DELETE', `/documents/${first}`);
    await keep('swell');
    expect((await server.send('POST', `/documents/${first}/restore`)).statusCode).toBe(422);
  });

  it('and knows who uses them, under former names too', async () => {
    const id = await keep('spray');
    await keep('mist', 'import spray;\nfloat mist(float x) { return spray(x); }');
    const material = newCodeMaterial('Wet rope', {}, { text: 'import spray;\nvec4 paint(Surface s) { return vec4(spray(1.0)); }' });
    await server.send('POST', '/documents', { id: 'wet-rope', document: material });
    const names = async (name: string): Promise<string[]> =>
      (await server.send('GET', `/functions/${name}/users`)).json<{ users: { name: string }[] }>().users.map((each) => each.name);
    expect(await names('spray')).toEqual(['Wet rope', 'mist']);
    const { changes } = renameFunction(newFunction('spray', 'float spray(float x) { return x; }'), 'foam');
    expect((await server.append(id, 0, { id: 'rename', label: 'Rename', changes })).statusCode).toBe(200);
    expect(await names('foam')).toEqual(['Wet rope', 'mist']);
    expect((await server.send('GET', '/functions/no%20name/users')).statusCode).toBe(400);
  });

  it('and sends them out with what needs them', async () => {
    await keep('rust', 'float rust(float x) { return x * 0.5; }');
    const material = newCodeMaterial('Anchor', {}, { text: 'import rust;\nvec4 paint(Surface s) { return vec4(rust(1.0)); }' });
    await server.send('POST', '/documents', { id: 'anchor', document: material });
    const { rawPayload } = await server.send('GET', '/documents/anchor/file');
    const { document, functions } = readBrelvinFile(new Uint8Array(rawPayload));
    expect(document.name).toBe('Anchor');
    expect([...functions]).toEqual([['rust', 'float rust(float x) { return x * 0.5; }']]);
  });

  it('and refuses code that is too long, with its place', async () => {
    const document = { ...newFunction('long'), text: 'x'.repeat(200_001) };
    const { statusCode, body } = await server.send('POST', '/documents', { id: 'fn-long', document });
    expect(statusCode).toBe(422);
    expect(body).toContain('text');
  });
});

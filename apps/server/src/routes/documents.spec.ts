import type { Material, Transaction } from '@brelvin/contract';
import { DEMO_DOCUMENTS, newDistanceField, newMaterial, newMesh, newSet } from '@brelvin/core';
import { freshDatabase } from '../../../../tests/support/databases';
import { seedDemo } from '../seed';
import { AssetRepository } from '../store/asset-repository';
import { connect, prepareDatabase } from '../store/database';
import { DocumentRepository } from '../store/document-repository';
import { UploadRepository } from '../store/upload-repository';
import { step, TestServer } from '../testing/test-server';

/** Documents over HTTP, on a real PostgreSQL. */
describe('The server keeps', () => {
  let server: TestServer;
  let repository: DocumentRepository;

  beforeAll(async () => {
    server = await TestServer.start();
    repository = new DocumentRepository(server.connection.database);
  });

  afterAll(() => server.stop());

  describe('documents', () => {
    it('are kept and read back', async () => {
      const id = await server.fresh('Lamp chimney');
      const { statusCode, body } = await server.send('GET', `/documents/${id}`);
      expect(statusCode).toBe(200);
      expect(JSON.parse(body)).toEqual({ id, step: 0, document: newMaterial('Lamp chimney') });
    });

    it('are found by what is seen with them: a field by its sets, a set by its materials', async () => {
      const keep = (id: string, document: object): Promise<unknown> => server.send('POST', '/documents', { id, document });
      await keep('used-field', newDistanceField('Arch'));
      await keep('used-set', { ...newSet('Hall'), meshes: { hall: newMesh('field', {}, { field: 'used-field' }) } });
      await keep('used-material', newMaterial('Boards', { set: 'used-set' }));
      const users = async (id: string): Promise<string[]> =>
        (await server.send('GET', `/documents/${id}/users`)).json<{ users: { id: string }[] }>().users.map((each) => each.id);
      expect([await users('used-field'), await users('used-set'), await users('used-material')]).toEqual([
        ['used-set'],
        ['used-material'],
        [],
      ]);
      // A set that shows it no more is no user.
      await server.append('used-set', 0, step('a', ['meshes', 'hall', 'field'], 'another'));
      expect(await users('used-field')).toEqual([]);
      expect((await server.send('GET', '/documents/no%20id/users')).statusCode).toBe(400);
    });

    it('grow by steps', async () => {
      const id = await server.fresh();
      expect((await server.append(id, 0, step('a', ['name'], 'Two'), step('b', ['notes'], 'n'))).json()).toEqual({ step: 2 });
      const read = (await server.send('GET', `/documents/${id}`)).json<{ step: number; document: { name: string; notes: string } }>();
      expect([read.step, read.document.name, read.document.notes]).toEqual([2, 'Two', 'n']);
      const later = (await server.send('GET', `/documents/${id}/steps?after=1`)).json<{ steps: { id: string }[] }>();
      expect(later.steps.map((each) => each.id)).toEqual(['b']);
    });

    it('take the same save twice as one', async () => {
      const id = await server.fresh();
      await server.append(id, 0, step('a', ['name'], 'Once'));
      expect((await server.append(id, 0, step('a', ['name'], 'Once'))).json()).toEqual({ step: 1 });
      // An answer got lost: the client sends the old step again with a new one behind it.
      expect((await server.append(id, 0, step('a', ['name'], 'Once'), step('b', ['notes'], 'x'))).json()).toEqual({ step: 2 });
    });

    it('tell a stale save what it missed, and change nothing', async () => {
      const id = await server.fresh();
      await server.append(id, 0, step('theirs', ['name'], 'Theirs'));
      const answer = await server.append(id, 0, step('ours', ['name'], 'Ours'));
      expect(answer.statusCode).toBe(409);
      const body = answer.json<{ error: string; step: number; missed: { id: string }[] }>();
      expect([body.error, body.step, body.missed.map((each) => each.id)]).toEqual(['stale', 1, ['theirs']]);
      expect((await server.send('GET', `/documents/${id}`)).json<{ document: { name: string } }>().document.name).toBe('Theirs');
    });

    it('let exactly one of many simultaneous saves through', async () => {
      const id = await server.fresh();
      const answers = await Promise.all(
        Array.from({ length: 8 }, (_, index) => server.append(id, 0, step(`s${index}`, ['name'], `Name ${index}`))),
      );
      expect(answers.filter((each) => each.statusCode === 200).length).toBe(1);
      expect(answers.filter((each) => each.statusCode === 409).length).toBe(7);
    });

    it('survive many steps: snapshots and another server’s cold cache give the same', async () => {
      const id = await server.fresh();
      for (let batch = 0; batch < 5; batch++) {
        const steps = Array.from({ length: 90 }, (_, index) =>
          step(`s${batch}-${index}`, ['surface', 'nodes', 'colour', 'x'], batch * 90 + index),
        );
        expect((await server.append(id, batch * 90, ...steps)).json()).toEqual({ step: (batch + 1) * 90 });
      }
      const warm = await repository.read(id);
      const cold = await new DocumentRepository(server.connection.database).read(id);
      expect(cold).toEqual({ ...warm });
      expect(cold.step).toBe(450);
    });

    it('are listed newest first, searched by name, in pages', async () => {
      const one = await server.fresh('Gauze 100%_one');
      await server.fresh('Gauze two');
      await server.append(one, 0, step('touch', ['notes'], 'x'));
      const all = (await server.send('GET', '/documents?kind=material&search=gauze')).json<{
        documents: { name: string; step: number }[];
        total: number;
      }>();
      expect(all.documents.map((each) => each.name)).toEqual(['Gauze 100%_one', 'Gauze two']);
      expect(all.total).toBe(2);
      const page = (await server.send('GET', '/documents?kind=material&search=gauze&limit=1&offset=1')).json<{
        documents: unknown[];
        total: number;
      }>();
      expect([page.documents.length, page.total]).toEqual([1, 2]);
      const exact = (await server.send('GET', `/documents?kind=material&search=${encodeURIComponent('100%_')}`)).json<{ total: number }>();
      expect(exact.total).toBe(1);
    });

    it('are found by a tag, also by a part of it', async () => {
      const id = await server.fresh('Untold');
      await server.append(id, 0, step('tagged', ['tags'], ['driftwood', 'quay']));
      for (const search of ['driftwood', 'DRIFT', 'quay']) {
        const found = (await server.send('GET', `/documents?kind=material&search=${search}`)).json<{ documents: { id: string }[] }>();
        expect(found.documents.map((each) => each.id))
          .withContext(search)
          .toContain(id);
      }
    });

    it('take a step that is repeated behind the last one for saved', async () => {
      const id = await server.fresh();
      expect((await server.append(id, 0, step('a', ['name'], 'Kite'))).json<object>()).toEqual({ step: 1 });
      const again = await server.append(id, 1, step('a', ['name'], 'Kite'));
      expect([again.statusCode, again.json<object>()]).toEqual([200, { step: 1 }]);
    });

    it('can be deleted, say so, and come back', async () => {
      const id = await server.fresh('Mist');
      expect((await server.send('DELETE', `/documents/${id}`)).statusCode).toBe(204);
      const gone = await server.append(id, 0, step('a', ['name'], 'x'));
      expect(gone.statusCode).toBe(410);
      expect(gone.json<{ message: string }>().message).toBe('"Mist" was deleted. Restore it to go on.');
      expect((await server.send('POST', `/documents/${id}/restore`)).statusCode).toBe(204);
      expect((await server.append(id, 0, step('a', ['name'], 'Back'))).statusCode).toBe(200);
    });

    it('go out as a file', async () => {
      const id = await server.fresh('Kite “dusk”');
      const { headers, body } = await server.send('GET', `/documents/${id}/file`);
      expect(headers['content-disposition']).toContain("filename*=UTF-8''Kite%20%E2%80%9Cdusk%E2%80%9D.brelvin");
      expect(JSON.parse(body)).toEqual(newMaterial('Kite “dusk”'));
    });

    it('of the demo world are put into an empty database only', async () => {
      const url = await freshDatabase();
      await prepareDatabase(url);
      const empty = connect(url, () => undefined);
      const documents = new DocumentRepository(empty.database);
      const files = new AssetRepository(empty.database);
      const uploads = new UploadRepository(empty.database, files);
      expect(await seedDemo(documents, uploads)).toBeTrue();
      expect(await seedDemo(documents, uploads)).toBeFalse();
      const materials = DEMO_DOCUMENTS.filter((each) => each.document.format === 'brelvin-material');
      expect((await documents.list({ kind: 'material', offset: 0, limit: 10 })).total).toBe(materials.length);
      const label = (await documents.read('material-label-front')).document as Material;
      const { asset } = await files.read(label.images['print']?.asset ?? '');
      expect([asset.width, asset.height]).toEqual([128, 128]);
      await empty.close();
    });
  });

  describe('history', () => {
    it('gives the last steps and the state before them, and any state in between', async () => {
      const id = await server.fresh();
      await server.append(id, 0, step('a', ['name'], 'One'), step('b', ['name'], 'Two'), {
        ...step('c', ['name'], 'One'),
        direction: 'undo',
      });
      const part = (await server.send('GET', `/documents/${id}/history?limit=2`)).json<{
        base: Material;
        baseStep: number;
        steps: Transaction[];
      }>();
      expect([part.base.name, part.baseStep, part.steps.map((each) => each.id), part.steps[1]?.direction]).toEqual([
        'One',
        1,
        ['b', 'c'],
        'undo',
      ]);
      expect((await server.send('GET', `/documents/${id}/at/2`)).json<{ document: Material }>().document.name).toBe('Two');
      expect((await server.send('GET', `/documents/${id}/at/0`)).json<{ document: Material }>().document.name).toBe('Lantern');
    });

    it('reaches back beyond snapshots', async () => {
      const id = await server.fresh();
      for (let count = 0; count < 3; count++) {
        await server.append(
          id,
          count * 100,
          ...Array.from({ length: 100 }, (_, index) => step(`s${count}-${index}`, ['name'], `Name ${count * 100 + index + 1}`)),
        );
      }
      expect((await server.send('GET', `/documents/${id}/at/150`)).json<{ document: Material }>().document.name).toBe('Name 150');
      expect((await server.send('GET', `/documents/${id}/at/250`)).json<{ document: Material }>().document.name).toBe('Name 250');
    });

    it('keeps versions by name, each name once', async () => {
      const id = await server.fresh();
      await server.append(id, 0, step('a', ['name'], 'One'));
      expect((await server.send('POST', `/documents/${id}/versions`, { name: 'before the fair', step: 1 })).statusCode).toBe(201);
      const again = await server.send('POST', `/documents/${id}/versions`, { name: 'before the fair', step: 0 });
      expect([again.statusCode, again.json<{ error: string }>().error]).toEqual([409, 'name-taken']);
      expect((await server.send('GET', `/documents/${id}/versions`)).json<{ versions: object[] }>().versions).toEqual([
        { name: 'before the fair', step: 1, at: jasmine.any(String) as never },
      ]);
      expect((await server.send('POST', `/documents/${id}/versions`, { name: '', step: 1 })).statusCode).toBe(400);
    });
  });

  describe('lists', () => {
    it('keeps with a version which steps others had', async () => {
      const id = await server.fresh('Stood');
      const beside = [{ id: 'some-set', step: 4 }];
      expect((await server.send('POST', `/documents/${id}/versions`, { name: 'all', step: 0, beside })).statusCode).toBe(201);
      const [version] = (await server.send('GET', `/documents/${id}/versions`)).json<{ versions: { beside?: object }[] }>().versions;
      expect(version?.beside).toEqual(beside);
      const bad = await server.send('POST', `/documents/${id}/versions`, { name: 'bad', step: 0, beside: [{ id: '..', step: -1 }] });
      expect(bad.statusCode).toBe(400);
    });

    it('go by tag, by order, and to what was deleted', async () => {
      const [first, second] = [await server.fresh('Zinc oil'), await server.fresh('Amber oil')];
      await server.append(first, 0, step('t', ['tags'], ['oils']));
      await server.append(second, 0, step('t', ['tags'], ['oils', 'warm']));
      const names = async (query: string): Promise<string[]> =>
        (await server.send('GET', `/documents?kind=material&${query}`))
          .json<{ documents: { name: string }[] }>()
          .documents.map((each) => each.name);
      expect(await names('tag=oils&sort=name')).toEqual(['Amber oil', 'Zinc oil']);
      expect(await names('tag=warm')).toEqual(['Amber oil']);
      expect((await server.send('GET', '/tags?kind=material')).json<{ tags: object[] }>().tags).toContain({ tag: 'oils', count: 2 });
      await server.send('DELETE', `/documents/${first}`);
      expect(await names('tag=oils')).toEqual(['Amber oil']);
      expect(await names('tag=oils&deleted=true')).toEqual(['Zinc oil']);
      expect((await server.send('GET', '/documents?kind=material&sort=colour')).statusCode).toBe(400);
    });
  });
});

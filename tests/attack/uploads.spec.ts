import { createHash, randomBytes } from 'node:crypto';
import { CHUNK_BYTES, MESH_TYPE } from '@brelvin/contract';
import pg from 'pg';
import { PNG } from 'pngjs';
import { newMaterial } from '@brelvin/core';
import { AssetRepository } from '../../apps/server/src/store/asset-repository';
import { connect, prepareDatabase, type DatabaseConnection } from '../../apps/server/src/store/database';
import { TooManyUploads } from '../../apps/server/src/store/failures';
import { UploadRepository } from '../../apps/server/src/store/upload-repository';
import { seededDatabase } from '../support/seeded-database';
import { ServerProcess } from '../support/server-process';

const sha = (bytes: Buffer): string => createHash('sha256').update(bytes).digest('hex');

function label(): Buffer {
  const png = new PNG({ width: 4, height: 4 });
  randomBytes(png.data.length).copy(png.data);
  return PNG.sync.write(png);
}

describe('Uploads that are meant to do harm', () => {
  let url: string;
  let connection: DatabaseConnection;
  let assets: AssetRepository;

  beforeAll(async () => {
    url = await seededDatabase();
    await prepareDatabase(url);
    connection = connect(url, () => undefined);
    assets = new AssetRepository(connection.database);
  });

  afterAll(() => connection?.close());

  const said = (file: Buffer) => ({ sha256: sha(file), name: 'label.png', type: 'image/png', size: file.length });

  it('of another’s file by a wrong size do not stand in its way', async () => {
    const uploads = new UploadRepository(connection.database, assets);
    const file = label();
    expect(await uploads.announce('thief', { ...said(file), size: 1 })).toEqual([0]);
    await uploads.putChunk('thief', sha(file), 0, Buffer.from('x'));
    expect(await uploads.announce('artist', said(file))).toEqual([0]);
    await uploads.putChunk('artist', sha(file), 0, file);
    expect((await uploads.finish('artist', sha(file))).size).toBe(file.length);
    // Also where both are one and the same.
    const second = label();
    await uploads.announce('artist', { ...said(second), size: 1 });
    expect(await uploads.announce('artist', said(second))).toEqual([0]);
    await uploads.putChunk('artist', sha(second), 0, second);
    expect((await uploads.finish('artist', sha(second))).width).toBe(4);
    // What was half sent of a file that is here now is finished, too.
    expect((await uploads.finish('nobody', sha(file))).sha256).toBe(sha(file));
  });

  it('that are never finished are bounded, and forgotten after a day', async () => {
    const uploads = new UploadRepository(connection.database, assets, { filesOfOne: 3, bytesOfOne: 10_000, bytesOfAll: 15_000 });
    const announce = (sender: string, size: number) =>
      uploads.announce(sender, { sha256: sha(randomBytes(8)), name: 'x.png', type: 'image/png', size });
    for (let count = 0; count < 3; count++) await announce('one', 10);
    await expectAsync(announce('one', 10)).toBeRejectedWithError(TooManyUploads);
    await expectAsync(announce('two', 10_001)).toBeRejectedWithError(TooManyUploads);
    await announce('two', 9000);
    await expectAsync(announce('three', 9000)).toBeRejectedWithError(TooManyUploads);
    const client = new pg.Client({ connectionString: url });
    await client.connect();
    await client.query(`update uploads set created_at = now() - interval '25 hours'`);
    await announce('one', 10);
    const { rows } = await client.query<{ count: string }>('select count(*) from uploads');
    expect(Number(rows[0]?.count)).toBe(1);
    await client.end();
  });

  it('of 64 MiB, four at once, are checked without being in memory', async () => {
    const server = await ServerProcess.start(url);
    const chunks = 64;
    const piece = randomBytes(CHUNK_BYTES);
    const hash = createHash('sha256');
    for (let number = 0; number < chunks; number++) hash.update(piece);
    const sha256 = hash.digest('hex');
    const senders = ['a', 'b', 'c', 'd'];
    // One file's chunks are all the same here, so that the test does not spend its time on sending them.
    const client = new pg.Client({ connectionString: url });
    await client.connect();
    await client.query('insert into asset_chunks select $1, number, $2 from generate_series(0, $3::int - 1) as number', [
      'large',
      piece,
      chunks,
    ]);
    await client.query(
      `insert into uploads (storage, sender, sha256, name, type, size) values ('large', 'address 127.0.0.1', $1, 'reef', $2, $3)`,
      [sha256, MESH_TYPE, chunks * CHUNK_BYTES],
    );
    const before = await memory(server);
    const answers = await Promise.all(senders.map(() => server.request('POST', `/assets/${sha256}/finish`)));
    expect(answers.map(({ status }) => status).every((status) => status === 422 || status === 404)).toBeTrue();
    expect(answers.map(({ body }) => body['message'])).toContain('This is no mesh of the workspace.');
    expect(await memory(server))
      .withContext('MiB at most above what it had')
      .toBeLessThan(before + 120);
    await client.end();
    await server.stop();
  });

  it('of a picture of a step that is still to come do not freeze the picture', async () => {
    const server = await ServerProcess.start(url);
    await server.request('POST', '/documents', { id: 'lantern', document: newMaterial('Lantern') });
    const put = (step: number) =>
      fetch(`${server.address}/api/documents/lantern/thumbnail?step=${step}`, {
        method: 'PUT',
        headers: { 'content-type': 'image/png' },
        body: new Uint8Array(label()),
      });
    expect((await put(2_000_000_000)).status).toBe(422);
    expect((await put(0)).status).toBe(204);
    await server.stop();
  });
});

/** The most that the server's process ever had, MiB. */
async function memory(server: ServerProcess): Promise<number> {
  const { readFile } = await import('node:fs/promises');
  const [, kibibytes] = /VmHWM:\s+(\d+)/.exec(await readFile(`/proc/${server.child.pid}/status`, 'utf8')) ?? [];
  return Number(kibibytes) / 1024;
}

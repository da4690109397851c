import { readConfig } from './config';

describe('readConfig', () => {
  const url = { DATABASE_URL: 'postgres://x@127.0.0.1/y' };

  it('binds to loopback unless told otherwise', () => {
    expect(readConfig(url).host).toBe('127.0.0.1');
    expect(readConfig(url).port).toBe(4310);
    expect(readConfig(url).databaseFolder).toBeUndefined();
    expect(readConfig({ ...url, PORT: '0', ALLOWED_HOSTS: 'a,b' })).toEqual(jasmine.objectContaining({ port: 0, hosts: ['a', 'b'] }));
  });

  it('refuses what cannot be', () => {
    expect(() => readConfig({})).toThrowError(/DATABASE_URL/);
    expect(() => readConfig({ ...url, PORT: 'http' })).toThrowError(/PORT/);
    expect(() => readConfig({ ...url, PORT: '70000' })).toThrowError(/PORT/);
  });
  it('serves other machines only with an access key', () => {
    expect(() => readConfig({ ...url, HOST: '0.0.0.0' })).toThrowError(/HOST=0.0.0.0 can be reached from other machines.*Set ACCESS_KEY/);
    expect(() => readConfig({ ...url, HOST: '192.168.4.2', ACCESS_KEY: 'short' })).toThrowError(/ACCESS_KEY must have at least 16/);
    const open = readConfig({ ...url, HOST: '192.168.4.2', ACCESS_KEY: 'lantern-on-the-quay', TRUST_PROXY: '1', ALLOWED_HOSTS: 'studio' });
    expect(open).toEqual(
      jasmine.objectContaining({ accessKey: 'lantern-on-the-quay', trustProxy: true, hosts: ['192.168.4.2', 'studio'] }),
    );
    for (const HOST of ['localhost', '127.0.0.1', '127.4.3.2', '::1']) expect(readConfig({ ...url, HOST }).accessKey).toBeUndefined();
  });
});

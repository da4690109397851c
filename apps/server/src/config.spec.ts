import { readConfig } from './config';

describe('readConfig', () => {
  const url = { DATABASE_URL: 'postgres://x@127.0.0.1/y' };

  it('binds to loopback unless told otherwise', () => {
    expect(readConfig(url).host).toBe('127.0.0.1');
    expect(readConfig(url).port).toBe(4310);
    expect(readConfig({ ...url, PORT: '0', ALLOWED_HOSTS: 'a,b' })).toEqual(jasmine.objectContaining({ port: 0, hosts: ['a', 'b'] }));
  });

  it('refuses what can not be', () => {
    expect(() => readConfig({})).toThrowError(/DATABASE_URL/);
    expect(() => readConfig({ ...url, PORT: 'http' })).toThrowError(/PORT/);
    expect(() => readConfig({ ...url, PORT: '70000' })).toThrowError(/PORT/);
  });
});

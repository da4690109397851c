import { Key } from 'selenium-webdriver';
import { seededDatabase } from '../../support/seeded-database';
import { ServerProcess } from '../../support/server-process';
import { Bench } from '../support/bench';
import { Browser } from '../support/browser';

/** A server that others may reach has a key. */
describe('Signing in', () => {
  let server: ServerProcess;
  let browser: Browser;
  let bench: Bench;

  beforeAll(async () => {
    server = await ServerProcess.start(await seededDatabase(), 0, { ACCESS_KEY: 'lantern on the quay' });
    browser = await Browser.open();
    bench = new Bench(browser.driver, server.address);
  });

  afterAll(async () => {
    await browser?.close();
    await server?.stop();
  });

  it('asks for the key once, says when it is wrong, and leads to where one was going', async () => {
    await bench.driver.get(`${server.address}/bench/material-puppet-cheek`);
    expect(await bench.text('form')).toContain('Whoever set this server up knows its access key.');
    await bench.keys('lantern on the quai', Key.ENTER);
    await bench.waitForText('[role="alert"]', /This is not the key/);
    await bench.keys('lantern on the quay', Key.ENTER);
    await bench.ready();
    expect(await bench.text('.save-state')).toBe('saved');
    await bench.addNode('rim', await bench.ground(330, 330));
    await bench.saved();
    await bench.openLibrary();
    await bench.waitForText('.library-name', /Puppet cheek/);
  });
});

import { Key } from 'selenium-webdriver';
import type { ServerProcess } from '../../support/server-process';
import type { Bench } from '../support/bench';
import { withBench } from '../support/with-bench';

/** A server that others may reach has a key. */
describe('Signing in', () => {
  let server: ServerProcess;
  let bench: Bench;

  withBench((open) => ({ server, bench } = open), { settings: { ACCESS_KEY: 'lantern on the quay' } });

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

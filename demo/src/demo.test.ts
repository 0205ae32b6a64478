import { startTestServer, TEST_NOW, type TestServer } from '@vivid-beacon/server/src/testing/testServer';
import type { Watch } from '@vivid-beacon/core';
import accounts from '../accounts.json';
import { loadDemo } from './load';
import { SimulatedPlant } from './plant';
import { samplesBetween, scenario } from './scenario';

const HOUR = 3_600_000;
let test: TestServer;
beforeAll(async () => {
  test = await startTestServer();
  await loadDemo(test.server.app.pool, { now: TEST_NOW, plantToken: 'vb_test', days: 15 });
}, 120_000);
afterAll(() => test.stop());

describe('the demo', () => {
  it('is the same for the same anchor, in whatever pieces it is asked for', () => {
    const [metric] = scenario(TEST_NOW);
    const whole = samplesBetween(metric, TEST_NOW - 6 * HOUR, TEST_NOW);
    const first = samplesBetween(scenario(TEST_NOW)[0], TEST_NOW - 6 * HOUR, TEST_NOW - 2 * HOUR);
    const second = samplesBetween(metric, first.t[first.t.length - 1], TEST_NOW);
    expect([...first.v, ...second.v]).toEqual(whole.v);
  });

  it('shows its stories on On watch: alarms, flags, a silent meter, indicators in breach', async () => {
    const visitor = test.visitor();
    await visitor.signIn(accounts[1].email, accounts[1].password);
    const { body } = await visitor.call<Watch>('GET', '/api/on-watch');
    expect(body.plants.map(({ name }) => name)).toEqual(['Foundry Lane', 'Quayside', 'Upper Weir']);
    expect(body.alarms.map(({ ruleName }) => ruleName)).toEqual(
      expect.arrayContaining([
        'Ironer 2 bed temperature high',
        'Boiler house pressure high',
        'Gateway G-07 late reads',
      ]),
    );
    expect(body.flags).toHaveLength(2);
    expect(body.silent.feeds.map(({ assetName }) => assetName)).toEqual(['Steam meter S-03']);
    expect(body.indicators[0].reading.level).toBe('breach');
    expect(body.indicators.find(({ name }) => name === 'Gas per kg, Dryer 3')?.reading.level).not.toBe(
      'clear',
    );
  });

  it('goes on through the simulated plant, and loading again adds nothing', async () => {
    test.clock.now = TEST_NOW + 10 * 60_000;
    const plant = new SimulatedPlant({
      url: test.url,
      token: 'vb_test',
      anchor: TEST_NOW,
      from: TEST_NOW,
      now: () => test.clock.now,
    });
    expect(await plant.tick()).toBeGreaterThan(300);
    expect(await plant.tick()).toBe(0);
    expect(
      (await loadDemo(test.server.app.pool, { now: test.clock.now, plantToken: 'vb_test', days: 15 }))
        .samples,
    ).toBe(0);
  });
});

#!/usr/bin/env node
/**
 * npm start: installs what is missing, starts PostgreSQL, migrates, loads demo data, builds, serves, and
 * prints the address. What dies is restarted. A second start of the same copy finds the first. DATABASE_URL
 * uses another database server, PORT another port, DEMO=0 no demo.
 */
import { ensurePackages } from './lib/packages.mjs';
import { runMain } from './lib/say.mjs';
import { choosePort, loadDemo, onStage, openDatabase, openPlant, openServer, welcome } from './lib/stage.mjs';
import { ensureWebBuild, WEB_FOLDER } from './lib/webBuild.mjs';

const demo = process.env.DEMO !== '0';

await runMain(() =>
  onStage(async (stage) => {
    ensurePackages();
    const env = { ...(await openDatabase(stage, { demo })), NODE_ENV: 'production' };
    const loaded = demo ? await loadDemo(stage, env) : null;
    await ensureWebBuild();
    const server = await openServer(stage, env, { demo, port: await choosePort(), more: { WEB_FOLDER } });
    const address = server.first;
    if (loaded) await openPlant(stage, env, address, loaded);
    welcome(address, { demo });
    return address;
  }),
);

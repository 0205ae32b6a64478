#!/usr/bin/env node
/** npm run build: builds the web app if its sources changed. */
import { mkdirSync } from 'node:fs';
import { DATA } from './lib/paths.mjs';
import { runMain } from './lib/say.mjs';
import { ensureWebBuild } from './lib/webBuild.mjs';

await runMain(async () => {
  mkdirSync(DATA, { recursive: true });
  await ensureWebBuild();
});

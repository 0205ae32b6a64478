import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { spawnSync } from 'node:child_process';
import { ROOT } from './paths.mjs';
import { CannotGoOn, say } from './say.mjs';

const MARK = path.join(ROOT, 'node_modules', '.installed-lock');

/** Installs the npm packages of the lock file, unless exactly these are installed. */
export function ensurePackages() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 18)) {
    throw new CannotGoOn(`Node 20.18 or newer is needed; this is ${process.version}.`);
  }
  const wanted = createHash('sha256')
    .update(readFileSync(path.join(ROOT, 'package-lock.json')))
    .digest('hex');
  if (existsSync(MARK) && readFileSync(MARK, 'utf8') === wanted) return;
  say('Installing npm packages (a minute or two the first time)');
  // No package needs an install script: native parts are shipped prebuilt.
  const run = spawnSync('npm', ['ci', '--ignore-scripts', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: ROOT,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  if (run.status !== 0) {
    throw new CannotGoOn(
      'npm could not install the packages. Its own message stands above. Check the network and run the command again.',
    );
  }
  writeFileSync(MARK, wanted);
}

import { existsSync } from 'node:fs';
import { mkdir, writeFile } from 'node:fs/promises';
import { spawnSync } from 'node:child_process';
import { CannotGoOn, say } from './say.mjs';

const isRoot = process.getuid?.() === 0;

function found(command) {
  return spawnSync('sh', ['-c', `command -v ${command}`]).status === 0;
}

/** Installs Debian packages, or says how to. `why` ends the sentence "… is needed to". */
export async function installPackages(packages, why) {
  const command = `apt-get install ${packages.join(' ')}`;
  if (!found('apt-get')) {
    throw new CannotGoOn(
      `${packages.join(' and ')} is needed to ${why}, and this machine has no apt-get to install it with.\n` +
        `Install it with this system's own package manager and run the command again.`,
    );
  }
  const sudo = isRoot
    ? []
    : found('sudo') && spawnSync('sudo', ['-n', 'true']).status === 0
      ? ['sudo', '-n']
      : null;
  if (!sudo) {
    throw new CannotGoOn(
      `${packages.join(' and ')} is needed to ${why}. Ask somebody with the right to run:\n  ${command}`,
    );
  }
  say(`Installing ${packages.join(', ')} (Debian)`);
  if (isRoot && packages.includes('postgresql') && !existsSync('/etc/postgresql-common/createcluster.conf')) {
    // The package would create and start a cluster; only the programs are needed.
    await mkdir('/etc/postgresql-common', { recursive: true });
    await writeFile('/etc/postgresql-common/createcluster.conf', 'create_main_cluster = false\n');
  }
  const apt = (...args) =>
    spawnSync(
      [...sudo, 'apt-get'][0],
      [...[...sudo, 'apt-get'].slice(1), '-q', '-y', '-o', 'Dpkg::Options::=--force-confold', ...args],
      { stdio: ['ignore', 'ignore', 'inherit'], env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } },
    ).status === 0;
  if (!apt('install', '--no-install-recommends', ...packages)) {
    apt('update');
    if (!apt('install', '--no-install-recommends', ...packages)) {
      throw new CannotGoOn(
        `apt-get could not install ${packages.join(', ')}. Its own message stands above. Then run the command again.`,
      );
    }
  }
}

/** Path of a Chromium for the tests, installed if it is missing. */
export async function ensureChromium() {
  const candidates = [process.env.CHROMIUM, '/usr/bin/chromium', '/usr/bin/chromium-browser'].filter(Boolean);
  const there = () => candidates.find((file) => existsSync(file));
  if (!there()) await installPackages(['chromium'], 'test the app in a browser');
  const file = there();
  if (!file)
    throw new CannotGoOn('Chromium was installed but is not at /usr/bin/chromium. Set CHROMIUM to its path.');
  return file;
}

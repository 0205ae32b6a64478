import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { readFile, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { promisify } from 'node:util';
import { brotliCompress, constants } from 'node:zlib';
import { DATA, ROOT } from './paths.mjs';
import { CannotGoOn, say } from './say.mjs';

const brotli = promisify(brotliCompress);

export const WEB_FOLDER = path.join(ROOT, 'app', 'dist');
const MARK = path.join(DATA, 'web-build');
const SOURCES = [
  'app/src',
  'app/app.json',
  'app/metro.config.js',
  'app/public',
  'app/package.json',
  'core/src',
  'package-lock.json',
];

function* filesUnder(place) {
  if (!existsSync(place)) return;
  if (!statSync(place).isDirectory()) {
    yield place;
    return;
  }
  for (const name of readdirSync(place).sort()) yield* filesUnder(path.join(place, name));
}

function sourceHash() {
  const hash = createHash('sha256');
  for (const source of SOURCES) {
    for (const file of filesUnder(path.join(ROOT, source))) {
      if (/\.test\.tsx?$/.test(file)) continue;
      hash.update(path.relative(ROOT, file)).update(readFileSync(file));
    }
  }
  return hash.digest('hex');
}

/** Builds the web app and compresses its files, unless nothing changed since the last time. */
export async function ensureWebBuild() {
  const wanted = sourceHash();
  if (
    existsSync(path.join(WEB_FOLDER, 'index.html')) &&
    existsSync(MARK) &&
    readFileSync(MARK, 'utf8') === wanted
  )
    return;
  say('Building the app (about a minute)');
  const run = spawn('npx', ['expo', 'export', '--platform', 'web', '--output-dir', 'dist', '--clear'], {
    cwd: path.join(ROOT, 'app'),
    env: { ...process.env, EXPO_OFFLINE: '1', EXPO_NO_TELEMETRY: '1', CI: '1', NODE_ENV: 'production' },
    stdio: ['ignore', 'pipe', 'pipe'],
  });
  const said = [];
  run.stdout.on('data', (part) => said.push(part));
  run.stderr.on('data', (part) => said.push(part));
  const [status] = await once(run, 'close');
  if (status !== 0) throw new CannotGoOn(`The app could not be built:\n${Buffer.concat(said)}`);
  say('Compressing its files');
  const large = [...filesUnder(WEB_FOLDER)].filter(
    (file) => /\.(js|css|html|ttf|json|svg|ico)$/.test(file) && statSync(file).size >= 1024,
  );
  await Promise.all(
    large.map(async (file) => {
      const bytes = await readFile(file);
      const packed = await brotli(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: 11 } });
      await writeFile(`${file}.br`, packed);
    }),
  );
  writeFileSync(MARK, wanted);
}

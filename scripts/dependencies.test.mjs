import { readFileSync, writeFileSync } from 'node:fs';
import { ROOT } from './lib/paths.mjs';

/* docs/dependencies.md is the list of what the product is built on, as package.json files and the installed packages say it. */

const WORKSPACES = ['', 'core/', 'server/', 'app/', 'demo/', 'e2e/'];
const json = (path) => JSON.parse(readFileSync(`${ROOT}/${path}`, 'utf8'));

/** name → { where, development } of every package that is named in a package.json. */
function named() {
  const found = new Map();
  for (const folder of WORKSPACES) {
    const { dependencies = {}, devDependencies = {} } = json(`${folder}package.json`);
    for (const [names, development] of [
      [Object.keys(dependencies), false],
      [Object.keys(devDependencies), true],
    ]) {
      for (const name of names.filter((each) => !each.startsWith('@vivid-beacon/'))) {
        const entry = found.get(name) ?? { where: [], development: true };
        entry.where.push(folder.slice(0, -1) || 'whole project');
        entry.development &&= development;
        found.set(name, entry);
      }
    }
  }
  return found;
}

/** From the lock file: what is installed, without installing it. */
const lock = json('package-lock.json').packages;
function installed(name, folder) {
  return lock[`${folder}/node_modules/${name}`] ?? lock[`node_modules/${name}`];
}

function row([name, { where, development }]) {
  const { version, license } = installed(name, where[0]);
  return `| ${name} | ${version} | ${license ?? '–'} | ${where.join(', ')} | ${development ? 'development' : 'runs'} |`;
}

const text = () => `# Dependencies

Packages that the product names itself, from the lock file. \`npm run dependencies\` writes this list anew; a test fails when it is not
up to date. All packages with theirs: \`npm sbom --sbom-format cyclonedx\`. From Debian: PostgreSQL, and Chromium for the tests.

| package | version | licence | used by | |
| --- | --- | --- | --- | --- |
${[...named()]
  .sort(([a], [b]) => (a < b ? -1 : 1))
  .map(row)
  .join('\n')}
`;

const FILE = `${ROOT}/docs/dependencies.md`;

describe('docs/dependencies.md', () => {
  it('lists what is installed', () => {
    if (process.env.WRITE_DEPENDENCIES) writeFileSync(FILE, text());
    expect(readFileSync(FILE, 'utf8')).toBe(text());
  });

  it('names a licence for each that runs, and one that allows it', () => {
    const allowed = /^(MIT|ISC|0BSD|BSD-[23]-Clause|Apache-2\.0|OFL-1\.1|BlueOak-1\.0\.0|MPL-2\.0)/;
    /** Licences with a text of their own, read by a person. */
    const read = ['@lhncbc/ucum-lhc'];
    const others = [...named()]
      .filter(([name, { development }]) => !development && !read.includes(name))
      .map(([name, { where }]) => `${name} ${installed(name, where[0]).license}`)
      .filter((each) => !allowed.test(each.split(' ')[1].replace(/^\(/, '')));
    expect(others).toEqual([]);
  });
});

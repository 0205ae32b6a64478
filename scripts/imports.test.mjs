import { readFileSync } from 'node:fs';
import path from 'node:path';
import ts from 'typescript';
import { ROOT } from './lib/paths.mjs';
import { sources } from './lib/sources.mjs';

const CORE = '@vivid-beacon/core';

/** Which files each file imports, types too. */
function importsOf(files) {
  const known = new Set(files);
  const found = (base) => [`${base}.ts`, `${base}.tsx`, `${base}/index.ts`].find((each) => known.has(each));
  const resolve = (from, name) => {
    if (name.startsWith('.')) return found(path.resolve(path.dirname(from), name));
    if (name === CORE) return found(path.join(ROOT, 'core', 'src', 'index'));
    return name.startsWith(`${CORE}/`)
      ? found(path.join(ROOT, 'core', name.slice(CORE.length + 1)))
      : undefined;
  };
  return new Map(
    files.map((file) => [
      file,
      ts
        .preProcessFile(readFileSync(file, 'utf8'), true, true)
        .importedFiles.flatMap(({ fileName }) => resolve(file, fileName) ?? []),
    ]),
  );
}

/** An import cycle as a list of files; null if there is none. */
function circleIn(imports, nameOf = (file) => path.relative(ROOT, file)) {
  const done = new Set();
  const way = [];
  const visit = (file) => {
    if (way.includes(file)) return [...way.slice(way.indexOf(file)), file];
    if (done.has(file)) return null;
    way.push(file);
    for (const next of imports.get(file) ?? []) {
      const circle = visit(next);
      if (circle) return circle;
    }
    way.pop();
    done.add(file);
    return null;
  };
  for (const file of imports.keys()) {
    const circle = visit(file);
    if (circle) return circle.map(nameOf);
  }
  return null;
}

const SERVER = path.join(ROOT, 'server', 'src');
/** The folder of a server file; top-level files, which join the folders, are in none. */
const folderOf = (file) => path.relative(SERVER, file).split(path.sep).slice(0, -1)[0];
const isSql = (file) => /(^|\/)(sql|\w+Sql)\.ts$/.test(file);

describe('imports', () => {
  it('never come back to where they began', () => {
    const files = ['core', 'server', 'app', 'demo'].flatMap((each) => sources(path.join(ROOT, each, 'src')));
    expect(files.length).toBeGreaterThan(400);
    expect(circleIn(importsOf(files))).toBeNull();
  });

  it('of the folders of the server never come back to a folder', () => {
    const folders = new Map();
    for (const [file, imported] of importsOf(sources(SERVER))) {
      const folder = folderOf(file);
      if (folder === undefined || folder === 'testing') continue;
      const others = imported.map(folderOf).filter((each) => each !== undefined && each !== folder);
      folders.set(folder, [...(folders.get(folder) ?? []), ...others]);
    }
    expect(folders.size).toBeGreaterThan(20);
    expect(circleIn(folders, (folder) => folder)).toBeNull();
  });

  it('of the server lead from endpoints through the work to SQL, never back', () => {
    const imports = importsOf(sources(SERVER));
    const wrong = [...imports].flatMap(([file, imported]) =>
      imported
        .filter((each) =>
          isSql(file)
            ? !isSql(each) && folderOf(each) !== 'db'
            : path.basename(each) === 'endpoints.ts' && ![undefined, 'testing'].includes(folderOf(file)),
        )
        .map((each) => `${path.relative(SERVER, file)} imports ${path.relative(SERVER, each)}`),
    );
    expect([...imports.keys()].filter(isSql).length).toBeGreaterThan(20);
    expect(wrong).toEqual([]);
  });

  it('are found to come back where they do', () => {
    const imports = new Map([
      ['a', ['b']],
      ['b', ['c', 'd']],
      ['c', []],
      ['d', ['b']],
    ]);
    expect(circleIn(imports)).toEqual(['b', 'd', 'b'].map((each) => path.relative(ROOT, each)));
  });
});

import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { READINGS } from './readings';

describe('READINGS', () => {
  it('holds every reading that any subject has, each under a name of its own', () => {
    const folders = readdirSync(__dirname, { withFileTypes: true }).filter((each) => each.isDirectory());
    const named = folders.flatMap(({ name }) =>
      readdirSync(path.join(__dirname, name))
        .filter((file) => file.endsWith('.ts') && !file.endsWith('.test.ts'))
        .flatMap((file) => [
          ...readFileSync(path.join(__dirname, name, file), 'utf8').matchAll(/= readingHandler\(\s*'(\w+)'/g),
        ])
        .map(([, reading]) => reading),
    );
    expect(named.length).toBeGreaterThan(15);
    expect([...READINGS.keys()].sort()).toEqual(named.sort());
  });
});

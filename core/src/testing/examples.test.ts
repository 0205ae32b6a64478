import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';

/* Runs the examples in the docstrings of core: the result must be what follows "// =>". */

const SOURCE = path.resolve(__dirname, '..');
const ENTRIES = ['index', 'boards', 'aggregation', 'alarming', 'expressions', 'intakeFiles', 'pictures'];

interface Example {
  readonly file: string;
  readonly code: string;
  /** undefined where the example does not give a result. */
  readonly expected: string | undefined;
}

/** The examples of a file: `@example code // => value`, on one line or on several up to the next tag. */
function examplesOf(file: string): Example[] {
  const text = readFileSync(path.join(SOURCE, file), 'utf8');
  return [...text.matchAll(/\/\*\*[\s\S]*?\*\//g)].flatMap(([comment]) => {
    const lines = comment
      .split('\n')
      .map((line) => line.replace(/^\s*(\/\*\*|\*\/|\*)? ?/, '').replace(/\*\/$/, ''));
    return lines.flatMap((line, i): Example[] => {
      if (!line.startsWith('@example')) return [];
      const end = lines.findIndex((each, k) => k > i && each.startsWith('@'));
      const whole = [line.slice('@example'.length), ...lines.slice(i + 1, end < 0 ? undefined : end)]
        .filter((each) => !each.trim().startsWith('// ') || each.includes('=>'))
        .join('\n');
      const [code, expected] = whole.split('// =>');
      return [{ file, code: code.trim(), expected: expected?.replace(/\n\s*/g, ' ').trim() }];
    });
  });
}

const files = readdirSync(SOURCE, { recursive: true, encoding: 'utf8' })
  .filter((file) => file.endsWith('.ts') && !/\.(test|d)\.ts$/.test(file))
  .sort();
const examples = files.flatMap(examplesOf);

/** Runs code with the exports of core and of its own file in scope. */
async function valueOf(file: string, code: string): Promise<unknown> {
  const modules: unknown[] = await Promise.all(
    [...ENTRIES, file].map((name) => import(path.join(SOURCE, name))),
  );
  const reach = Object.assign({}, ...modules) as Record<string, unknown>;
  const names = Object.keys(reach).filter((name) => /^[A-Za-z_]\w*$/.test(name) && name !== 'default');
  return (new Function(...names, `return (${code}\n);`) as (...values: unknown[]) => unknown)(
    ...names.map((name) => reach[name]),
  );
}

describe('examples', () => {
  it('are found in many files', () => {
    expect(examples.length).toBeGreaterThan(40);
  });

  it.each(examples)('$file: $code', async ({ file, code, expected }) => {
    expect(expected).toBeDefined();
    expect(await valueOf(file, code)).toEqual(await valueOf(file, expected!));
  });
});

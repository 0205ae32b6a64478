import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { judge, type Judged } from './judge';
import { LATER_FILES } from './laterFiles';
import { OWN_FILES } from './ownFiles';
import { REAL_FILES } from './realFiles';
import { trueSeries } from './reference';
import { fileOf, takeAll } from './takeAll';
import { WRITTEN_FILES } from './writtenFiles';

const MODULES = path.resolve(__dirname, '../../../../node_modules');
const verdicts = { right: 0, asked: 0, wrong: 0, refused: 0 };

function note({ verdict, why }: Judged): void {
  verdicts[verdict]++;
  // An asked file is as good as a right one only where nothing is lost; wrong and refused ones say why.
  expect(verdict === 'right' || verdict === 'asked' ? '' : `${verdict}: ${why}`).toBe('');
}

describe('what a careful person takes from files', () => {
  it.each([...OWN_FILES, ...LATER_FILES].map((file) => [file.name, file] as const))(
    '%s',
    async (name, file) => {
      note(await judge((correct) => takeAll(fileOf(name, file.content), correct), file));
    },
  );

  it.each(WRITTEN_FILES.map((file) => [file.name, file] as const))('written by %s', async (name, file) => {
    const content = await file.write();
    note(await judge((correct) => takeAll(fileOf(name, content), correct), file));
  });

  it.each(REAL_FILES.map((file) => [file.path, file] as const))(
    'real: %s',
    async (file, { columns, asks, refuses }) => {
      const whole = path.join(MODULES, file);
      expect(existsSync(whole)).toBe(true);
      const content = new Uint8Array(readFileSync(whole));
      const truth = columns ? trueSeries(whole, columns) : null;
      const takes = columns && { series: 0, samples: 0, may: columns.may };
      note(
        await judge(
          (correct) => takeAll(fileOf(path.basename(file), content), correct),
          { asks, refuses, takes },
          truth,
        ),
      );
    },
  );

  it('reads or asks about at least 95 % of them', () => {
    const all = Object.values(verdicts).reduce((a, b) => a + b, 0);
    expect(all).toBe(OWN_FILES.length + LATER_FILES.length + WRITTEN_FILES.length + REAL_FILES.length);
    expect((verdicts.right + verdicts.asked) / all).toBeGreaterThanOrEqual(0.95);
    console.info(`intake corpus: ${JSON.stringify(verdicts)}`);
  });
});

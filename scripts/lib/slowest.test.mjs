import { filesOfJest, slowest, testsOfPlaywright } from './slowest.mjs';

describe('the slowest tests', () => {
  it('are listed with the slowest first, at most twenty', () => {
    const entries = Array.from({ length: 30 }, (_, i) => ({ name: `test ${i}`, seconds: i }));
    const lines = slowest('test files', entries);
    expect(lines[0]).toBe('The slowest 20 of 30 test files (435 s in all):');
    expect(lines[1]).toBe('   29.0 s  test 29');
    expect(lines).toHaveLength(21);
  });

  it('are read from the reports of both runners', () => {
    const jest = { testResults: [{ name: '/here/core/a.test.ts', startTime: 1000, endTime: 3500 }] };
    expect(filesOfJest(jest, '/here')).toEqual([{ name: 'core/a.test.ts', seconds: 2.5 }]);
    const spec = { title: 'opens', tests: [{ projectName: 'phone', results: [{ duration: 1200 }] }] };
    const playwright = {
      suites: [{ title: 'rail.spec.ts', suites: [{ title: 'the rail', specs: [spec] }] }],
    };
    expect(testsOfPlaywright(playwright)).toEqual([
      { name: 'phone: rail.spec.ts › the rail › opens', seconds: 1.2 },
    ]);
  });
});

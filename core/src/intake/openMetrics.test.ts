import { exposedName, readOpenMetrics } from './openMetrics';

describe('readOpenMetrics', () => {
  it('reads names, labels with escapes, values and times in seconds (OpenMetrics 1.0, from memory)', () => {
    const text = [
      '# TYPE flow gauge',
      '# UNIT flow litres',
      '# HELP flow Flow of water.',
      'flow{line="2",place="a \\"b\\"\\n\\\\"} 1.5 1763534400.250',
      'flow -Inf',
      'reads_total 7 1763534400 # {trace="x"} 1',
      '# EOF',
      '',
    ].join('\n');
    const { samples, refused, units, types } = readOpenMetrics(text);
    expect(refused).toEqual([]);
    expect(samples[0]).toEqual({
      line: 4,
      name: 'flow',
      labels: [
        ['line', '2'],
        ['place', 'a "b"\n\\'],
      ],
      value: 1.5,
      t: 1_763_534_400_250,
    });
    expect(samples[1]).toMatchObject({ value: -Infinity, t: null });
    expect(samples[2]).toMatchObject({ name: 'reads_total', value: 7 });
    expect([units.get('flow'), types.get('flow')]).toEqual(['litres', 'gauge']);
    expect(exposedName({ name: 'flow', labels: [['line', '2']] })).toBe('flow{line="2"}');
  });

  it('refuses bad lines by number and keeps the others', () => {
    const text = [
      'ok 1 2',
      '1bad 3',
      'open{a="1 4',
      'twice{a="1",a="2"} 4',
      'no x',
      'two 1 2 3',
      '',
      '#nothing',
      '# EOF',
    ];
    const { samples, refused } = readOpenMetrics(text.join('\n'));
    expect(samples).toHaveLength(1);
    expect(refused.map(({ line }) => line)).toEqual([2, 3, 4, 5, 6, 7, 8]);
    expect(refused.map(({ reason }) => reason).join('\n')).toMatch(
      /name of a metric[\s\S]*does not end[\s\S]*stands twice[\s\S]*must be a number[\s\S]*only a value and a time[\s\S]*empty lines/,
    );
  });

  it('does not take a text that may be cut short', () => {
    expect(() => readOpenMetrics('flow 1 2\n')).toThrow('does not end with "# EOF"');
    expect(readOpenMetrics('# EOF\nflow 1 2\n').refused[0]).toMatchObject({
      line: 2,
      reason: 'stands after # EOF',
    });
  });
});

import type { AlarmTest } from '@vivid-beacon/core';

/** A limit in the unit of the metric, and the test with another one in its place. */
export interface ValueLimit {
  readonly name: string;
  readonly value: number;
  readonly test: (value: number) => AlarmTest;
}

/** The limits that can be shown and dragged on the course of the metric; none where no value decides. */
export function limitsOfTest(test: AlarmTest): ValueLimit[] {
  if (test.kind === 'limit') {
    return [{ name: 'Limit on the course', value: test.limit, test: (limit) => ({ ...test, limit }) }];
  }
  if (test.kind === 'outside') {
    const { low, high } = test;
    return [
      { name: 'Upper end on the course', value: high, test: (to) => ({ ...test, high: Math.max(to, low) }) },
      { name: 'Lower end on the course', value: low, test: (to) => ({ ...test, low: Math.min(to, high) }) },
    ];
  }
  return [];
}

import fc from 'fast-check';
import type { QueryAnswer } from '../domain/query';
import { decodeQuery, encodeQuery } from './queryColumns';

const value = fc.option(fc.double({ noNaN: true, noDefaultInfinity: true }), { nil: null });

describe('the answer of a query as columns', () => {
  it('comes back as it was, for any number of groups, measures and periods', () => {
    fc.assert(
      fc.property(
        fc.array(fc.string({ maxLength: 8 }), { maxLength: 3 }),
        fc.nat(2),
        fc.array(value, { maxLength: 5 }),
        (names, measures, values) => {
          const answer: QueryAnswer = {
            window: { start: 1, end: 9 },
            zone: 'Europe/London',
            now: 5,
            units: ['kWh'],
            start: values.map((_, i) => i),
            end: values.map((_, i) => i + 1),
            names: null,
            cells: { columns: 24, hours: [1, 0.5], working: [0, 1] },
            groups: names.map((name) => ({
              name,
              assetId: null,
              measures: Array.from({ length: measures }, () => ({
                metricIds: ['1'],
                perMetricIds: [],
                withinIds: ['2'],
                values,
                coverage: values.map(() => 0.5),
                samples: values.map((_, i) => i),
                levels: null,
                partial: true,
                asOf: 4,
                previous: 2.5,
                provenance: null,
              })),
            })),
          };
          expect(decodeQuery(encodeQuery(answer).buffer)).toEqual(answer);
        },
      ),
    );
  });
});

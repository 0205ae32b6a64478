import type { MeasureValues, QueryAnswer, QueryGroup } from '../domain/query';
import { plainNumbers, decodeColumns, encodeColumns } from './columns';

/** The fields outside the columns. */
interface Head extends Omit<QueryAnswer, 'start' | 'end' | 'groups'> {
  readonly groups: readonly (Omit<QueryGroup, 'measures'> & {
    readonly measures: readonly Omit<MeasureValues, 'values' | 'coverage' | 'samples'>[];
  })[];
}

/** The answer of a query as columns: start, end, then values, coverage and samples by number of group and measure. */
export function encodeQuery({ start, end, groups, ...head }: QueryAnswer): Uint8Array<ArrayBuffer> {
  const columns: [string, ArrayLike<number>][] = [
    ['start', start],
    ['end', end],
  ];
  const named = groups.map(({ measures, ...group }, i) => ({
    ...group,
    measures: measures.map(({ values, coverage, samples, ...rest }, k) => {
      columns.push([`values ${i} ${k}`, values.map((value) => value ?? NaN)]);
      columns.push([`coverage ${i} ${k}`, coverage], [`samples ${i} ${k}`, samples]);
      return rest;
    }),
  }));
  return encodeColumns<Head>({ ...head, groups: named }, columns);
}

/** Reads what {@link encodeQuery} wrote. @throws {RangeError} when cut short. */
export function decodeQuery(bytes: ArrayBuffer): QueryAnswer {
  const { head, columns } = decodeColumns<Head>(bytes);
  const { window, zone, now, units, names, cells, groups } = head;
  const list = (name: string): number[] => plainNumbers(columns.get(name)!);
  return {
    window,
    zone,
    now,
    units,
    names,
    cells,
    start: list('start'),
    end: list('end'),
    groups: groups.map(({ measures, ...group }, i) => ({
      ...group,
      measures: measures.map((rest, k) => ({
        ...rest,
        values: list(`values ${i} ${k}`).map((value) => (value === value ? value : null)),
        coverage: list(`coverage ${i} ${k}`),
        samples: list(`samples ${i} ${k}`),
      })),
    })),
  };
}

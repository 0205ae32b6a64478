import type { Request, Response } from 'express';
import { writeColumns, type QueryAnswer } from '@vivid-beacon/core';

export const BYTES = 'application/octet-stream';

/** Does the caller ask for columns of bytes? */
export function wantsColumns(request: Request): boolean {
  return (request.headers.accept ?? '').includes(BYTES);
}

/** Sends bytes, unless told otherwise those made by writeColumns. */
export function sendColumns(response: Response, bytes: Uint8Array, type = BYTES): void {
  response.setHeader('Content-Type', type);
  response.end(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength));
}

/** A query's answer as columns: start, end, then values, coverage and samples of each group by number. */
export function columnsOfQuery({ start, end, groups, ...head }: QueryAnswer): Uint8Array {
  const columns: [string, ArrayLike<number>][] = [
    ['start', start],
    ['end', end],
  ];
  groups.forEach(({ values, coverage, samples }, i) => {
    columns.push([`values ${i}`, values.map((value) => value ?? NaN)]);
    columns.push([`coverage ${i}`, coverage], [`samples ${i}`, samples]);
  });
  const named = groups.map(({ name, metricIds, perMetricIds, withinIds, previous, making }) => ({
    name,
    metricIds,
    perMetricIds,
    withinIds,
    previous,
    making,
  }));
  return writeColumns({ ...head, groups: named }, columns);
}

import * as yup from 'yup';
import { BeaconError, DAY_MS, decodeColumns, sliceSeries, wholeNumber } from '@vivid-beacon/core';
import { dayOf, packDay, sortSamples } from '@vivid-beacon/core/src/aggregation';
import { EARLIEST_TIME, type ReportedLine } from '@vivid-beacon/core/src/intakeFiles';
import { checked } from '../http/errors';
import { partId } from './made';
import type { PartDay } from './sql';

/** Rows of a file in one part, over all columns. */
const MAX_NUMBERS = 500_000;
const MAX_REPORTED = 20_000;
const TOLD_KINDS = ['refused', 'leftOut', 'repeated', 'met', 'short'] as const;

/** The id of a metric, or the reference of one that is made with the file. */
function metricRef(): yup.StringSchema {
  return yup.string().matches(/^(new-\d{1,6}|\d{1,18})$/, 'must be the id of a metric or new-0, new-1 …');
}

/** Head of a part: its number, the metrics of its columns in order, what is told of its lines. */
const headSchema = yup
  .object({
    seq: yup.number().integer().min(0).max(10_000_000).required(),
    metricIds: yup.array(metricRef().required()).max(10_000).required(),
    told: yup
      .array(
        yup
          .object({
            kind: yup
              .string()
              .oneOf([...TOLD_KINDS])
              .required(),
            line: wholeNumber().min(1).required(),
            column: yup.string().max(200).defined(),
            value: yup.string().max(200).defined(),
            reason: yup.string().max(200).defined(),
          })
          .noUnknown(),
      )
      .max(MAX_REPORTED)
      .default([]),
    columns: yup.array().required(),
  })
  .noUnknown();

export interface FilePart {
  readonly seq: number;
  readonly metricIds: readonly string[];
  readonly told: readonly ReportedLine[];
  /** A time at which two different values of one metric stand in this part; null = none. */
  readonly conflict: { readonly metricId: string; readonly t: number } | null;
  readonly days: readonly PartDay[];
}

/**
 * Reads one part of a file: bytes of encodeColumns with columns "t 0", "v 0", "t 1" … for the metrics of its
 * head. @throws {BeaconError} naming what is wrong; nothing of the part is taken then.
 */
export async function readPart(bytes: unknown, now: number): Promise<FilePart> {
  if (!Buffer.isBuffer(bytes)) {
    throw new BeaconError('BAD_SHAPE', 'Send a part of a file as application/octet-stream.');
  }
  const { head, columns } = decode(bytes);
  const { seq, metricIds: refs, told } = await checked(headSchema, head);
  const metricIds = refs.map(partId);
  let conflict: FilePart['conflict'] = null;
  const latest = now + DAY_MS;
  const days: PartDay[] = [];
  let numbers = 0;
  metricIds.forEach((metricId, i) => {
    const t = columns.get(`t ${i}`);
    const v = columns.get(`v ${i}`);
    if (!t || !v || t.length !== v.length) {
      throw new BeaconError(
        'BAD_SHAPE',
        `Columns "t ${i}" and "v ${i}" must exist and have the same length.`,
      );
    }
    numbers += t.length;
    if (numbers > MAX_NUMBERS) {
      throw new BeaconError('TOO_LARGE', `A part may hold at most ${MAX_NUMBERS} numbers.`);
    }
    for (let k = 0; k < t.length; k++) {
      if (!Number.isInteger(t[k]) || t[k] < EARLIEST_TIME || t[k] > latest || !Number.isFinite(v[k])) {
        throw new BeaconError(
          'BAD_INPUT',
          `Sample ${k} of metric ${metricId} is not a whole ms between 1500 and tomorrow with a finite value: ${t[k]}, ${v[k]}.`,
          `t ${i}`,
        );
      }
    }
    const series = sortSamples(t, v);
    conflict ??= conflictOf(metricId, t, v, series.t.length);
    for (let k = 0; k < series.t.length;) {
      const dayStart = dayOf(series.t[k]);
      const day = sliceSeries(series, dayStart, dayStart + DAY_MS);
      days.push({ metricId, dayStart, ...packDay(day, dayStart) });
      k += day.t.length;
    }
  });
  return { seq, metricIds, told, days, conflict };
}

/** @param kept how many samples are left when each time counts once. */
function conflictOf(metricId: string, t: Float64Array, v: Float64Array, kept: number): FilePart['conflict'] {
  if (kept === t.length) return null;
  const first = new Map<number, number>();
  for (let i = 0; i < t.length; i++) {
    const known = first.get(t[i]);
    if (known === undefined) first.set(t[i], v[i]);
    else if (known !== v[i]) return { metricId, t: t[i] };
  }
  return null;
}

function decode(bytes: Buffer): ReturnType<typeof decodeColumns<object>> {
  try {
    const aligned = bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer;
    return decodeColumns<object>(aligned);
  } catch (error) {
    throw new BeaconError('BAD_SHAPE', `The part cannot be read: ${(error as Error).message}.`);
  }
}

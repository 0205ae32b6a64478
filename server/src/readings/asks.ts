import type { AskKind } from '@vivid-beacon/core';
import type { ReadingHandler } from './readingHandler';
import {
  distributionReading,
  levelsReading,
  notesReading,
  queryColumns,
  stretchReading,
  trendColumns,
  valueReading,
} from './readings';

/** What answers each kind of ask of a board: in columns of bytes, where it can be had so. */
export const READING_OF_ASK: Readonly<Record<AskKind, ReadingHandler<never, unknown>>> = {
  query: queryColumns,
  value: valueReading,
  trend: trendColumns,
  levels: levelsReading,
  distribution: distributionReading,
  stretch: stretchReading,
  notes: notesReading,
};

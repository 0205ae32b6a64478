import type { AskKind } from '@vivid-beacon/core/src/api/readings';
import type { ReadingName } from './readings';

/** What answers each kind of ask of a board: in columns of bytes, where it can be had so. */
export const READING_OF_ASK: Readonly<Record<AskKind, ReadingName>> = {
  query: 'queryColumns',
  value: 'value',
  trend: 'trendColumns',
  levels: 'levels',
  distribution: 'distribution',
  stretch: 'stretch',
};

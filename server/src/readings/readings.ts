import { encodeQuery, encodeTrend, type Query, type TrendAsk } from '@vivid-beacon/core';
import { describeDistribution } from './distribution';
import { readLevels } from './levels';
import { answerQuery } from './query';
import { readValue } from './read';
import { readingHandler } from './readingHandler';
import { readNotes } from '../logs/notes';
import { readStretch } from './stretch';
import { readTrend } from './trend';

export const valueReading = readingHandler('value', readValue);
export const trendReading = readingHandler('trend', readTrend);
export const trendColumns = readingHandler('trendColumns', async (context, ask: TrendAsk) =>
  encodeTrend(await readTrend(context, ask)),
);
export const levelsReading = readingHandler('levels', readLevels);
export const distributionReading = readingHandler('distribution', describeDistribution);
export const stretchReading = readingHandler('stretch', readStretch);
export const notesReading = readingHandler('notes', readNotes);
export const queryReading = readingHandler('query', answerQuery);
export const queryColumns = readingHandler('queryColumns', async (context, query: Query) =>
  encodeQuery(await answerQuery(context, query)),
);

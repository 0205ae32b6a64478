import { writeQuery, writeTrend, type Query, type TrendAsk } from '@vivid-beacon/core';
import { describeDistribution } from './distribution';
import { answerQuery } from './query';
import { readValue } from './read';
import { reading } from './reading';
import { readStretch } from './stretch';
import { readLevels, readTrend } from './trend';

export const valueReading = reading('value', readValue);
export const trendReading = reading('trend', readTrend);
export const trendColumns = reading('trendColumns', async (context, ask: TrendAsk) =>
  writeTrend(await readTrend(context, ask)),
);
export const levelsReading = reading('levels', readLevels);
export const distributionReading = reading('distribution', describeDistribution);
export const stretchReading = reading('stretch', readStretch);
export const queryReading = reading('query', answerQuery);
export const queryColumns = reading('queryColumns', async (context, query: Query) =>
  writeQuery(await answerQuery(context, query)),
);

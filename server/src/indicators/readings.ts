import { readingHandler } from '../readings/readingHandler';
import { pastOfIndicator, previewIndicator, readWholeIndicator, suggestedTargets } from './history';
import { readDefinition, readIndicatorLosses, readIndicatorPage, readIndicatorLevels } from './indicators';

const unbounded = { unbounded: true };

export const definitionReading = readingHandler(
  'definition',
  (context, { definition, targets }: Parameters<typeof previewIndicator>[1]) =>
    readDefinition(context, definition, targets),
);
export const indicatorReading = readingHandler('indicator', readWholeIndicator);
export const indicatorPastReading = readingHandler('indicatorPast', pastOfIndicator);
export const indicatorPreviewReading = readingHandler('indicatorPreview', previewIndicator);
export const suggestedTargetsReading = readingHandler('suggestedTargets', suggestedTargets);
export const indicatorsReading = readingHandler('indicators', readIndicatorPage, unbounded);
export const indicatorLevelsReading = readingHandler('indicatorLevels', readIndicatorLevels, unbounded);
export const timeByLevelReading = readingHandler('timeByLevel', readIndicatorLosses, unbounded);

import { reading } from '../readings/reading';
import { pastOfIndicator, previewIndicator, readWholeIndicator, suggestedTargets } from './history';
import { readDefinition, readIndicatorLosses, readIndicators } from './indicators';

const unbounded = { unbounded: true };

export const definitionReading = reading(
  'definition',
  (context, { definition, targets }: Parameters<typeof previewIndicator>[1]) =>
    readDefinition(context, definition, targets),
);
export const indicatorReading = reading('indicator', readWholeIndicator);
export const indicatorPastReading = reading('indicatorPast', pastOfIndicator);
export const indicatorPreviewReading = reading('indicatorPreview', previewIndicator);
export const suggestedTargetsReading = reading('suggestedTargets', suggestedTargets);
export const indicatorsReading = reading('indicators', (context) => readIndicators(context), unbounded);
export const timeByLevelReading = reading('timeByLevel', readIndicatorLosses, unbounded);

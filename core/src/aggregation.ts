// Series of samples: how they are stored, merged, summarised and rolled up, and how a value is planned from them.
// Only the server needs it.
// Before any schema is made.
import './schemas/safeText';
export * from './series/dayCodec';
export * from './series/mergeSamples';
export * from './series/mergeTimes';
export * from './series/m4';
export * from './stats/stats';
export * from './time/zoneClock';
export * from './time/bucketSpans';
export * from './time/folds';
export * from './time/foldedBuckets';
export * from './calendar/workingDuration';
export * from './summary/coverage';
export * from './summary/aggregates';
export * from './summary/aggregate';
export * from './summary/counterStep';
export * from './summary/valueOf';
export * from './summary/checkSummary';
export * from './summary/summarise';
export * from './summary/aggregateReference';
export * from './summary/measure';
export * from './summary/formulaWords';
export * from './bands/levelSteps';
export * from './plan/pieces';
export * from './plan/assemble';
export * from './plan/pool';
export * from './plan/members';
export * from './plan/course';
export * from './plan/cells';
export * from './plan/divisor';
export * from './plan/sharedTime';
export * from './degreeDays/degreeDays';
export * from './logs/stopTime';
export * from './rollup/rollupDay';
export * from './rollup/rollupCodec';
export * from './indicators/bandOfTarget';
export * from './indicators/suggestTargets';

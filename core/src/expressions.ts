// Arithmetic expressions of derived metrics.
export * from './derive/parseExpression';
export * from './derive/comparesTotals';
export * from './derive/evaluate';
export * from './derive/cost';

// Arithmetic expressions of derived metrics.
export * from './derive/parseExpression';
export * from './derive/evaluate';

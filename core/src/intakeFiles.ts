// Reading files of every kind, for the server and the page that brings files in.
export * from './intake/balance';
export * from './intake/balanceText';
export * from './intake/decodeText';
export * from './intake/feeds';
export * from './intake/fileKind';
export * from './intake/jsonTable';
export * from './intake/layout';
export * from './intake/collisions';
export * from './intake/numberText';
export * from './intake/openMetrics';
export * from './intake/recognise';
export * from './intake/rowReader';
export * from './intake/separator';
export * from './intake/splitRows';
export * from './intake/survey';
export * from './intake/timeFormat';
export * from './intake/cellEffect';

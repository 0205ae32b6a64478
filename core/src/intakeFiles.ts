// Reading files of every kind, for the server and the page that brings files in.
export * from './intake/decodeText';
export * from './intake/numberText';
export * from './intake/timeFormat';
export * from './intake/layout';
export * from './intake/recognise';
export * from './intake/ndjsonTable';
export * from './intake/fileKind';
export * from './intake/rowReader';
export * from './intake/openMetrics';
export * from './intake/splitRows';

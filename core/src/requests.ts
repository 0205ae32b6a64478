// Schemas of request bodies that only the server checks.
// Before any schema is made.
import './schemas/safeText';
export * from './schemas/alarmRule';
export * from './schemas/data';
export * from './schemas/derived';
export * from './schemas/calendar';
export * from './schemas/logs';
export * from './schemas/reference';
export * from './schemas/push';
export * from './text/closest';

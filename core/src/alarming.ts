// Evaluating alarm rules, and the notices that follow. Only the server needs it.
// Before any schema is made.
import './schemas/safeText';
export * from './watch/handoverShifts';
export * from './alarms/condition';
export * from './alarms/escalation';
export * from './alarms/signal';
export * from './alarms/runCondition';
export * from './alarms/rehearse';
export * from './alarms/signalCourse';
export * from './notices/quietHours';
export * from './notices/message';
export * from './notices/flood';

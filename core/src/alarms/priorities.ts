/** How soon a person must act; ISA-18.2 advises about 80 % low, 15 % medium, 5 % high (from memory). */
export const ALARM_PRIORITIES = ['high', 'medium', 'low'] as const;
export type AlarmPriority = (typeof ALARM_PRIORITIES)[number];

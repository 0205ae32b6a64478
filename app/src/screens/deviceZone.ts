/** The time zone of this device: where no site says another. */
export const deviceZone = (): string => Intl.DateTimeFormat().resolvedOptions().timeZone;

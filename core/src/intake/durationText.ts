const CLOCK = /^(-)?(\d{1,6}):(\d{2})(?::(\d{2})(?:[.,](\d{1,3}))?)?$/;
const ISO = /^(-)?P(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?(?:(\d+(?:\.\d+)?)S)?)?$/;

/**
 * Reads a length of time as a value: "01:30:00" and "1:30" (hours and minutes, with or without seconds) or ISO 8601
 * "PT1H30M".
 *
 * @returns seconds; NaN for anything else.
 * @example parseDuration('PT1H30M') // => 5400
 */
export function parseDuration(text: string): number {
  const trimmed = text.trim();
  const clock = CLOCK.exec(trimmed);
  if (clock) {
    const [, minus, hours, minutes, seconds, fraction] = clock;
    if (Number(minutes) > 59 || Number(seconds ?? 0) > 59) return NaN;
    const size =
      Number(hours) * 3600 +
      Number(minutes) * 60 +
      Number(seconds ?? 0) +
      (fraction ? Number(`0.${fraction}`) : 0);
    return minus ? -size : size;
  }
  const iso = ISO.exec(trimmed);
  if (!iso || !/\d/.test(trimmed)) return NaN;
  const [, minus, days, hours, minutes, seconds] = iso;
  const size =
    Number(days ?? 0) * 86_400 + Number(hours ?? 0) * 3600 + Number(minutes ?? 0) * 60 + Number(seconds ?? 0);
  return minus ? -size : size;
}

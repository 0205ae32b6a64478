const DAY = 86_400_000;

/**
 * A time of a sheet as text, on the wall clock. A time of day alone has no date: it is on day 0 of the
 * workbook.
 */
export function timeAsText(time: Date, from1904: boolean): string {
  const t = Math.round(time.getTime() / 1000) * 1000;
  if (Number.isNaN(t)) return '';
  const dayZero = from1904 ? Date.UTC(1904, 0, 1) : Date.UTC(1899, 11, 30);
  const text = new Date(t).toISOString();
  if (t >= dayZero && t < dayZero + DAY) return text.slice(11, 19);
  return text
    .replace('T', ' ')
    .replace(/(:00)?\.000Z$/, '$1')
    .replace('Z', '');
}

/** A number as its sheet shows it where that changes its meaning: 0.12 in a cell of percents is "12 %". */
export function numberAsShown(value: number, format: string | undefined): string {
  if (format?.replace(/"[^"]*"/g, '').includes('%')) return `${Number((value * 100).toPrecision(15))} %`;
  return String(value);
}

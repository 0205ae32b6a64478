import { BeaconError, type Holiday } from '@vivid-beacon/core';

/** The library brings the holidays of the whole world: it is loaded when somebody asks for some. */
const library = async () => (await import('date-holidays')).default;

/** Countries whose public holidays are known, by ISO 3166 code. */
export async function holidayCountries(): Promise<{ code: string; name: string }[]> {
  const Holidays = await library();
  const all = new Holidays().getCountries('en');
  return Object.entries(all)
    .map(([code, name]) => ({ code, name: String(name) }))
    .sort((a, b) => a.name.localeCompare(b.name));
}

/** Regions of a country with holidays of their own. */
export async function holidayRegions(country: string): Promise<{ code: string; name: string }[]> {
  const Holidays = await library();
  const all = new Holidays().getStates(country, 'en') ?? {};
  return Object.entries(all).map(([code, name]) => ({ code, name: String(name) }));
}

/**
 * Public holidays of a country or region over some years, from the library date-holidays.
 *
 * @throws {BeaconError} BAD_INPUT for an unknown country.
 */
export async function publicHolidays(
  country: string,
  region: string | null,
  fromYear: number,
  toYear: number,
): Promise<Holiday[]> {
  const Holidays = await library();
  const source = region ? new Holidays(country, region) : new Holidays(country);
  const out: Holiday[] = [];
  for (let year = fromYear; year <= toYear; year++) {
    const found = source.getHolidays(year);
    if (!Array.isArray(found)) {
      throw new BeaconError('BAD_INPUT', `No holidays are known for "${country}".`, 'country');
    }
    for (const { date, name, type } of found) {
      if (type === 'public') out.push({ date: date.slice(0, 10), name });
    }
  }
  return withoutRepeats(out);
}

/** Each day once, with the name it came with first, in order of time. */
export function withoutRepeats(days: readonly Holiday[]): Holiday[] {
  const byDate = new Map<string, Holiday>();
  for (const each of days) if (!byDate.has(each.date)) byDate.set(each.date, each);
  return [...byDate.values()].sort((a, b) => a.date.localeCompare(b.date));
}

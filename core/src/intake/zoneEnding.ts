/**
 * Offsets (minutes) of the zone names that time stamps end in: RFC 2822, section 4.3 for UT, GMT and those of North
 * America; the European ones are fixed by EU directive 2000/84/EC. Names that several zones share (IST, AST) are left
 * out: such a time is refused, not guessed.
 */
const NAMED_MINUTES: Readonly<Record<string, number>> = {
  Z: 0,
  UT: 0,
  UTC: 0,
  GMT: 0,
  WET: 0,
  WEST: 60,
  BST: 60,
  CET: 60,
  MEZ: 60,
  CEST: 120,
  MESZ: 120,
  EET: 120,
  EEST: 180,
  EST: -300,
  EDT: -240,
  CST: -360,
  CDT: -300,
  MST: -420,
  MDT: -360,
  PST: -480,
  PDT: -420,
};

/** What follows a time: an offset in minutes, an IANA zone, or an ambiguous zone name. */
export type ZoneEnding =
  { readonly minutes: number } | { readonly zone: string } | { readonly unknown: string };

const ENDING =
  /\s*(?:\[([A-Za-z]+(?:\/[A-Za-z_+-]+)+)\]|([A-Za-z]+(?:\/[A-Za-z_+-]+)+)|(?:\(?(UTC|GMT)?\s?([+-])(\d{1,2}):?(\d{2})?\)?)|\(?([A-Z]{1,5})\)?)$/;

/**
 * Cuts the zone or offset off the end of a written time: "06:40 CET", "06:40+01:00", "06:40 GMT+2",
 * "06:40 Europe/Berlin", "06:40+01:00[Europe/Berlin]".
 *
 * @returns the text before it and what it means; null when nothing of the kind stands there.
 */
export function zoneEnding(text: string): { readonly before: string; readonly ending: ZoneEnding } | null {
  const found = ENDING.exec(text);
  if (!found) return null;
  const before = text.slice(0, found.index);
  const [, bracketed, slashed, , sign, hours, minutes, name] = found;
  // An offset before a zone in brackets says it exactly: "06:40+01:00[Europe/Berlin]" (RFC 9557).
  if (bracketed) return zoneEnding(before) ?? { before, ending: { zone: bracketed } };
  if (slashed) return { before, ending: { zone: slashed } };
  if (sign) {
    const size = Number(hours) * 60 + Number(minutes ?? 0);
    return { before, ending: { minutes: sign === '-' ? -size : size } };
  }
  if (/^[AP]M?$/.test(name)) return null;
  const known = NAMED_MINUTES[name];
  return { before, ending: known === undefined ? { unknown: name } : { minutes: known } };
}

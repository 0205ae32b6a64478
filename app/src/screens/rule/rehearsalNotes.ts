import { DAY_MS, formatNumber, type RehearsalAnswer, type RulePeriod } from '@vivid-beacon/core';

/** Alarms a day that one person can answer, of all rules together (ANSI/ISA-18.2-2016, from memory). */
const GUIDELINE_A_DAY = 150;

/** What a person should know of a rehearsal beside its figures. */
export function rehearsalNotes(
  answer: RehearsalAnswer,
  now: RehearsalAnswer | null,
  period: RulePeriod | null,
): string[] {
  const { alarms, dataMs, metrics } = answer;
  const count = alarms.length;
  if (dataMs === 0) return ['There are no data in this time: nothing can be said of the rule.'];
  const aDay = count / (dataMs / DAY_MS);
  const notes = [
    `${formatNumber(aDay, aDay < 1 ? 2 : 1)} a day; one person can answer about ${GUIDELINE_A_DAY} a day of all rules together.`,
  ];
  if (count > 0) {
    const share = (100 * answer.outsideHours) / count;
    notes.push(`${formatNumber(share, 0)} % of them outside working hours.`);
  }
  if (now) notes.push(`The rule in force: ${times(now.alarms.length)}; this one: ${times(count)}.`);
  if (answer.learntOnItself) {
    notes.push('It learnt what is usual from these same days, so the result looks better than it will be.');
  }
  if (answer.unlearnt > 0) {
    notes.push(
      `${answer.unlearnt} of ${metrics} metrics have too little history to learn from: it finds nothing there.`,
    );
  }
  const over = metrics > 1 ? ` of ${metrics} metrics` : '';
  notes.push(
    `Run on ${formatNumber(answer.samples, 0)} ${period ? `full ${period}s` : 'samples'}${over} with the code that watches live.`,
  );
  return notes;
}

function times(count: number): string {
  return count === 1 ? 'once' : `${formatNumber(count, 0)} times`;
}

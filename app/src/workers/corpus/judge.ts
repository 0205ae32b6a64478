import { unexplained, type LayoutCorrection } from '@vivid-beacon/core/src/intakeFiles';
import type { Careful } from './expectation';
import type { Taken } from './takeAll';
import type { TrueSeries } from './reference';

export type Verdict = 'right' | 'asked' | 'wrong' | 'refused';

export interface Judged {
  readonly verdict: Verdict;
  /** What differs, for a person. */
  readonly why: string;
}

const right: Judged = { verdict: 'right', why: '' };
const wrong = (why: string): Judged => ({ verdict: 'wrong', why });

/** Runs the product on a file and compares with what a careful person takes. */
export async function judge(
  take: (correct: LayoutCorrection) => Promise<Taken>,
  { asks, answer, takes, refuses }: Careful,
  truth: TrueSeries | null = null,
): Promise<Judged> {
  let taken: Taken;
  try {
    taken = await take({});
  } catch (error) {
    const { message } = error as Error;
    if (refuses) return refuses.test(message) ? right : { verdict: 'refused', why: message };
    return { verdict: 'refused', why: message };
  }
  if (refuses) return wrong('was not refused');
  const questions = taken.look.recognised.questions.map(({ about }) => about);
  if (asks) {
    const asked = questions.some((about) => asks.includes(about));
    if (!asked)
      return wrong(`asked ${questions.join() || 'nothing'}, not ${asks.join(' or ')}: ${summary(taken)}`);
    if (!answer) return { verdict: 'asked', why: '' };
    const then = await take(answer);
    const left = then.look.recognised.questions;
    if (left.length > 0) return wrong(`still asks ${left.map(({ about }) => about).join()}`);
    const difference = compare(then, takes!);
    return difference ? wrong(difference) : { verdict: 'asked', why: '' };
  }
  if (questions.length > 0) return { verdict: 'asked', why: questions.join() };
  const difference = truth ? compareAll(taken, truth, takes?.may ?? []) : compare(taken, takes!);
  return difference ? wrong(difference) : right;
}

function summary({ series, look }: Taken): string {
  const { layout } = look.recognised;
  const names = layout.nameColumns.map((i) => layout.headings[i]).join();
  const times = layout.blocks.flatMap(({ timeColumns }) => timeColumns.map((i) => layout.headings[i])).join();
  return `${series.length} series by [${names}] at [${times}]`;
}

function compare(taken: Taken, takes: NonNullable<Careful['takes']>): string {
  const { balance, told } = taken;
  if (balance && unexplained(balance) !== 0) return `${unexplained(balance)} lines are not explained`;
  const series = taken.series.filter(({ heading }) => !takes.may?.includes(heading));
  if (series.length !== takes.series)
    return `${series.length} series, not ${takes.series}: ${summary(taken)}`;
  const samples = series.reduce((n, { values }) => n + values.size, 0);
  if (samples !== takes.samples) return `${samples} samples, not ${takes.samples}`;
  for (const [label, time, value] of takes.spots ?? []) {
    const found = series.find((each) => each.label === label);
    if (!found) return `no series "${label}" among ${series.map((each) => each.label).join(', ')}`;
    const got = found.values.get(Date.parse(time));
    if (got === undefined || Math.abs(got - value) > 1e-9)
      return `${label} at ${time} is ${got}, not ${value}`;
  }
  for (const kind of ['refused', 'leftOut', 'repeated'] as const) {
    const wanted = takes[kind];
    if (wanted === undefined) continue;
    const lines = new Set(told.filter((each) => each.kind === kind).map(({ line }) => line)).size;
    if (lines !== wanted) return `${lines} lines told as ${kind}, not ${wanted}`;
  }
  return '';
}

/** Every sample of every series, by content: a series may be called otherwise, but none may be mixed, lost or changed. */
function compareAll(taken: Taken, truth: TrueSeries, may: readonly string[]): string {
  if (taken.balance && unexplained(taken.balance) !== 0) return 'lines are not explained';
  const contentOf = (values: ReadonlyMap<number, number>): string =>
    [...values]
      .sort(([a], [b]) => a - b)
      .map(([t, v]) => `${t}=${v}`)
      .join(' ');
  const got = taken.series
    .filter(({ heading }) => !may.includes(heading))
    .map(({ values }) => contentOf(values))
    .sort();
  const wanted = [...truth.values()].map(contentOf).sort();
  if (got.length !== wanted.length) return `${got.length} series, not ${wanted.length}: ${summary(taken)}`;
  const at = wanted.findIndex((each, i) => each !== got[i]);
  return at < 0 ? '' : `series ${at} is ${got[at].slice(0, 120)}…, not ${wanted[at].slice(0, 120)}…`;
}

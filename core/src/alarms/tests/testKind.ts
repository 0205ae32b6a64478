import type * as yup from 'yup';
import type { Level, TargetBand } from '../../bands/targetBand';
import type { MetricKind, MetricReading } from '../../domain/metric';
import type { TaggedUnion } from '../../schemas/shape';
import type { Series } from '../../series/series';

/** Unit and decimals of the numbers shown. */
export interface DisplayUnit {
  readonly unit: string;
  readonly decimals: number;
}

/** The metric a first test is made for. */
export interface TestedMetric extends DisplayUnit {
  readonly intervalMs: number;
}

/** What a signal depends on besides the test and the samples. */
export interface SignalContext<Model extends object = object> {
  /** A value holds no longer than this, ms. */
  readonly maxGapMs: number;
  readonly site: { readonly zone: string };
  readonly reading: Pick<MetricReading, 'kind' | 'rollover' | 'intervalMs'>;
  /** What the test learnt from the past; null = nothing, and the test cannot trip. */
  readonly model: Model | null;
  /** Of an indicator judged by period: the level of the period that ends at `t` (ms); absent for other rules. */
  readonly levelAt?: (t: number) => Level | null;
}

/**
 * How bad each sample is, as one number compared with one limit: larger is worse. NaN = unknown. `shown` is
 * the value shown to people.
 */
export interface Signal {
  readonly x: Float64Array;
  readonly shown: Float64Array;
  /** The test's state for the next samples, as plain data. */
  readonly memory: object | undefined;
}

/** A limit in the unit of the metric that can be dragged on its trend. */
export interface ValueLimit<Test> {
  readonly name: string;
  readonly value: number;
  readonly test: (value: number) => Test;
}

/** The limit of a signal, and the limit for its return. */
export interface Threshold {
  readonly limit: number;
  readonly deadband: number;
  /** A signal on the limit trips too; without a deadband it then returns below the limit only. */
  readonly includesLimit?: boolean;
}

/** The traits of one kind of alarm test. */
export interface TestTraits<Test> {
  /** Its label in the editor: "a limit". */
  readonly label: string;
  /** The word that ends a rule's name: "Ironer 2 bed temperature high". */
  readonly ending: string;
  /** The kinds of metric whose samples it applies to. */
  readonly metrics: readonly MetricKind[];
  /** Whether it also applies to the values of whole periods: of any measure, or of an indicator only. */
  readonly ofPeriods?: 'any' | 'indicator';
  /** Whether one number, `limit`, decides how often it fires. */
  readonly hasLimit: boolean;
  /** Checks its fields together: null, or what is wrong. */
  check?(test: Test): string | null;
  /** A first test on a metric, with a limit that past values seldom pass. */
  begin(metric: TestedMetric, usual: number): Test;
  /** The test in words, to follow "when the metric is": "above 205 °C". */
  words(test: Test, shown: DisplayUnit): string;
  /** When the value is back to normal, in words; absent where the test has no separate return condition. */
  back?(test: Test, shown: DisplayUnit): string;
  /** The unit of limit and deadband, where it differs from the metric's. */
  limitUnit?(test: Test, shown: DisplayUnit): DisplayUnit;
  /** The limits that can be dragged on the metric's trend. */
  valueLimits?(test: Test): ValueLimit<Test>[];
  /** The values that do not trip it. */
  clearBand?(test: Test): TargetBand;
  /** Whether lower values are worse: signal and limit are then negated. */
  isFromBelow?(test: Test): boolean;
  /** A first test that trips before this one, for a Caution before it; null or absent = nothing is milder. */
  milder?(test: Test): Test | null;
  /** Whether another test of this kind trips no later; default: by the limit of its signal. */
  isMilder?(milder: Test, test: Test): boolean;
  threshold(test: Test): Threshold;
  /**
   * Computes the signal; see {@link Signal}. @param first index of the first new sample; earlier ones serve
   * as history only.
   */
  signal(
    test: Test,
    context: SignalContext,
    series: Series,
    memory: object | undefined,
    first: number,
  ): Signal;
  /** How much history before the newest evaluated sample it needs, ms. */
  lookBackMs?(test: Test, context: SignalContext): number;
  /** Earliest sample time (ms) needed to evaluate it at `at`; default: delays plus look-back before `at`. */
  contextStart?(test: Test, context: SignalContext, at: number, settleMs: number): number;
  /** Time without a sample (ms) after which it trips by itself. */
  silentAfterMs?(test: Test): number;
  /** Learns from past samples; null = too few of them. */
  learn?(
    test: Test,
    past: Series,
    reading: { readonly kind: MetricKind; readonly maxGapMs: number },
    zone: string,
  ): object | null;
}

/** A test of one kind, as stored. */
export type TestOf<Kind extends string, Fields extends yup.ObjectShape> = TaggedUnion<
  'kind',
  { readonly [K in Kind]: Fields }
>;

export interface TestKind<Kind extends string, Fields extends yup.ObjectShape> extends TestTraits<
  TestOf<Kind, Fields>
> {
  readonly kind: Kind;
  readonly fields: Fields;
}

/**
 * One thing an alarm rule can look for. A new one is a file like its neighbours and a line in alarmTest.ts.
 *
 * @returns takes what is known of it: the type of the test follows from its fields first.
 */
export function testKind<const Kind extends string, Fields extends yup.ObjectShape>(
  kind: Kind,
  fields: Fields,
): (traits: TestTraits<TestOf<Kind, Fields>>) => TestKind<Kind, Fields> {
  return (traits) => ({ kind, fields, ...traits });
}

/** A signal whose shown value is the sample itself, without state. */
export const plainSignal = (x: Float64Array, { v }: Series): Signal => ({ x, shown: v, memory: undefined });

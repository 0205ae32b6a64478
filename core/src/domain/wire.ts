import type { AlarmTest } from '../alarms/alarmTest';
import type { AlarmState, SetAside } from '../alarms/lifecycle';
import type { Level, TargetBand } from '../bands/targetBand';
import type { FeedHealth } from '../feeds/feedHealth';
import type { PushRule } from './push';
import type { Balance, ToldLine } from '../intake/balance';
import type { FoundColumn } from '../intake/layout';
import type { HoursFilter } from '../time/hours';
import type { IndicatorDefinition } from '../indicators/definition';
import type { Interval } from '../time/interval';
import type { WindowSpec } from '../time/window';
import type { Measure } from '../board/board';
import type { MetricKind, Summary } from './metric';
import type { AttributeCondition } from './query';
import type { ReferencePeriod } from './reference';
import type { Flag } from './flags';
import type { Person } from './person';
import type { Provenance } from './provenance';
import type { Role } from './roles';

/* What server and app say to each other. Ids are strings; times are ms since the Unix epoch. */

/** An account that demo mode offers on the sign-in screen. */
export interface DemoAccount {
  readonly email: string;
  readonly password: string;
  readonly name: string;
  readonly role: Role;
  readonly duty: string;
}

export interface SessionState {
  readonly person: Person | null;
  readonly csrfToken: string;
  readonly demoAccounts: readonly DemoAccount[];
}

export interface Asset {
  readonly id: string;
  readonly parentId: string | null;
  readonly name: string;
  readonly kind: string;
  /** IANA zone, its own or inherited. */
  readonly zone: string;
  /** The plant (topmost asset) it belongs to. */
  readonly plantId: string;
  /** Its own zone; null = inherited. */
  readonly ownZone: string | null;
  /** Ids of assets from the plant down to this one. */
  readonly path: readonly string[];
  /** Their names: "Quayside / Dryers / Dryer 1". */
  readonly title: string;
  /** Facts about it: "Floor area (m²)": 420, "Maker": "…". */
  readonly attributes: Readonly<Record<string, string | number>>;
}

export interface Metric {
  readonly id: string;
  readonly key: string;
  readonly name: string;
  /** As the person wrote it. */
  readonly unit: string;
  /** Its UCUM code, where one was found. */
  readonly ucum: string | null;
  readonly kind: MetricKind;
  /** Where its values come from: samples, an expression over other metrics, or values by period. */
  readonly origin: 'samples' | 'derived' | 'reference';
  /** For a reference series: the period of each value. */
  readonly period: ReferencePeriod | null;
  readonly intervalMs: number;
  readonly maxGapMs: number;
  readonly rollover: number | null;
  readonly decimals: number;
  readonly plausibleLow: number | null;
  readonly plausibleHigh: number | null;
  /** Samples older than this are thrown away, rollups stay; null = all are kept. */
  readonly retentionDays: number | null;
  readonly assetId: string;
  readonly assetName: string;
  readonly plantId: string;
  readonly plantName: string;
  readonly zone: string;
  readonly last: { readonly t: number; readonly v: number } | null;
  readonly health: FeedHealth;
}

/** An asset as a line of a tree. */
export interface AssetRow extends Asset {
  /** How many assets hang right below it. */
  readonly children: number;
  /** How many metrics are its own. */
  readonly metrics: number;
  /** How many feeds at or below it need a look. */
  readonly troubled: number;
}

/** A part of a long list. */
export interface PageOf<Item> {
  readonly items: readonly Item[];
  /** How many there are in all. */
  readonly total: number;
}

export interface Reading {
  readonly value: number | null;
  readonly unit: string;
  readonly level: Level;
  readonly coverage: number;
  /** True while the window's end still lies ahead. */
  readonly partial: boolean;
  /** The same measure over the window before, as a reference; null if it has no data. */
  readonly previous: number | null;
  /** Newest sample used; null without data. */
  readonly asOf: number | null;
  readonly now: number;
  readonly provenance: Provenance;
}

export interface TrendAnswer {
  readonly window: Interval;
  readonly zone: string;
  readonly unit: string;
  readonly now: number;
  /** Columns of equal length; v is null where a gap opens. */
  readonly t: readonly number[];
  readonly v: readonly (number | null)[];
  /** For bucketed trends, the end of each bucket; else null. */
  readonly until: readonly number[] | null;
  /** Stretches without data inside the window, up to now. */
  readonly gaps: readonly Interval[];
  readonly samples: number;
}

/** The numbers of one measure over a chosen stretch of time. */
export interface StretchNumbers {
  /** The measure itself. */
  readonly value: number | null;
  readonly unit: string;
  readonly coverage: number;
  readonly samples: number;
  /** Every summary that the metric's kind has; of a ratio none. */
  readonly values: readonly {
    readonly summary: Summary;
    readonly value: number | null;
    readonly unit: string;
  }[];
  /** ms on each level; null without a target band. */
  readonly levels: Readonly<Record<Level, number>> | null;
}

/** How soon a person must act; ISA-18.2 advises about 80 % low, 15 % medium, 5 % high (from memory). */
export const ALARM_PRIORITIES = ['high', 'medium', 'low'] as const;
export type AlarmPriority = (typeof ALARM_PRIORITIES)[number];

/** A state of the plant in which a rule is meant to be silent: its alarms are suppressed by design. */
export interface SuppressWhile {
  /** Metric of the kind state. A rule over a scope takes the one of the same name on each asset. */
  readonly metricId: string;
  readonly code: number;
  /** While the state is this one, or while it is not. */
  readonly is: boolean;
}

/** Who is told when nobody acknowledges an alarm in time. */
export interface Escalation {
  readonly afterMs: number;
  readonly to: readonly string[];
}

export interface AlarmRule {
  readonly id: string;
  readonly name: string;
  /** The metric; of a rule over a scope the one it was written for. */
  readonly metricId: string;
  /** Asset on which, and below which, every metric of the same name, unit and kind is watched; null = only the one. */
  readonly under: string | null;
  /** Of a rule over a scope: only on assets with all of these attributes. */
  readonly attributes: readonly AttributeCondition[];
  readonly test: AlarmTest;
  readonly onDelayMs: number;
  readonly offDelayMs: number;
  /** Hours in which it watches; null = always. */
  readonly hours: HoursFilter | null;
  readonly level: 'caution' | 'breach';
  readonly priority: AlarmPriority;
  readonly suppress: SuppressWhile | null;
  /** What a notice says, with {asset}, {metric}, {value} and {limit}; empty = the usual words. */
  readonly message: string;
  /** What the person is to do. */
  readonly toDo: string;
  /** People who get a notice. */
  readonly told: readonly string[];
  readonly escalation: Escalation | null;
  /** Does a return latch, so that the alarm stands until a person resets it? */
  readonly latching: boolean;
  readonly inForce: boolean;
  readonly inForceFrom: number;
  readonly watches: readonly WatchedMetric[];
}

/** One metric that a rule watches. */
export interface WatchedMetric {
  readonly metricId: string;
  readonly assetName: string;
  /** Set aside: its alarms are recorded, and nobody is called; null = not. */
  readonly aside: RuleAside | null;
  /** Does the state of the plant suppress it now? */
  readonly suppressed: boolean;
}

/** How, why and until when an alarm rule is set aside. */
export interface RuleAside {
  readonly kind: SetAside;
  readonly at: number;
  /** End of a shelf; null = out of service, until somebody puts it back. */
  readonly until: number | null;
  readonly by: string;
  readonly reason: string;
}

export interface Alarm {
  readonly id: string;
  readonly ruleId: string;
  readonly ruleName: string;
  readonly state: AlarmState;
  /** End of the shelf it lies on, and why it is set aside; null = it is not. */
  readonly shelvedUntil: number | null;
  readonly asideReason: string | null;
  readonly level: 'caution' | 'breach';
  readonly priority: AlarmPriority;
  readonly test: AlarmTest;
  readonly toDo: string;
  readonly metricId: string;
  readonly metricName: string;
  readonly unit: string;
  readonly decimals: number;
  readonly assetId: string;
  readonly assetName: string;
  readonly plantId: string;
  readonly plantName: string;
  readonly zone: string;
  readonly raisedAt: number;
  /** Null when there was none: silence from the beginning. */
  readonly raisedValue: number | null;
  readonly returnedAt: number | null;
  readonly latestValue: number | null;
  readonly acknowledgedBy: string | null;
  readonly acknowledgedAt: number | null;
  /** When others were told because nobody acknowledged since it last called; null = they were not. */
  readonly escalatedAt: number | null;
}

export interface AlarmEvent {
  readonly id: string;
  readonly at: number;
  readonly kind:
    | 'raised'
    | 'returned'
    | 'acknowledged'
    | 'reset'
    | 'shelved'
    | 'outOfService'
    | 'suppressed'
    | 'putBack'
    | 'told'
    | 'remark'
    | 'flagged'
    | 'flagClosed'
    | 'ruleRetired'
    | 'recalculated';
  readonly personName: string | null;
  readonly value: number | null;
  readonly remark: string | null;
}

/** An indicator with its present value, target and level; numbers in the unit of its measure. */
export interface IndicatorReading {
  readonly id: string;
  readonly version: number;
  readonly definition: IndicatorDefinition;
  readonly name: string;
  readonly assetName: string;
  readonly plantId: string;
  readonly ownerName: string | null;
  readonly measure: Measure;
  readonly window: WindowSpec;
  readonly decimals: number;
  /** The target that holds in the window now; null = none. */
  readonly target: number | null;
  /** The band it is judged by now; null where that needs a target and there is none. */
  readonly band: TargetBand | null;
  readonly reading: Reading;
}

/** Feeds that went quiet: the first hundred, those that alarm rules look at before others. */
export interface SilentFeeds {
  readonly feeds: readonly Metric[];
  /** How many there are in all, by plant. */
  readonly count: Readonly<Record<string, number>>;
}

/** When an alarm was raised: a mark along the time of a trend. */
export interface RaisedAlarm {
  readonly id: string;
  readonly metricId: string;
  readonly raisedAt: number;
}

/** Everything On watch shows. */
export interface Watch {
  readonly now: number;
  readonly plants: readonly { readonly id: string; readonly name: string; readonly zone: string }[];
  readonly alarms: readonly Alarm[];
  readonly flags: readonly Flag[];
  readonly indicators: readonly IndicatorReading[];
  readonly silent: SilentFeeds;
  /** How many alarm rules see nothing while a metric is silent, by its id. */
  readonly rulesOn: Readonly<Record<string, number>>;
}

/** How long an indicator lay on each level, by the hour. */
export interface IndicatorLoss {
  readonly id: string;
  readonly name: string;
  readonly assetId: string;
  readonly assetName: string;
  /** The metric that leads its measure. */
  readonly metricId: string;
  /** The stretch of time that is counted. */
  readonly window: Interval;
  readonly plantId: string;
  readonly breachMs: number;
  readonly cautionMs: number;
  readonly nodataMs: number;
  readonly clearMs: number;
}

export interface PushToken {
  readonly id: string;
  readonly name: string;
  readonly createdAt: number;
  readonly createdBy: string;
  readonly lastUsedAt: number | null;
  readonly rule: PushRule;
  /** Series that were heard and wait to be mapped. */
  readonly waiting: number;
}

/** Answer to a push: what happened to every sample. */
export interface PushAnswer {
  readonly added: number;
  readonly unchanged: number;
  readonly corrected: number;
  readonly refused: readonly PushRefusal[];
  /** Samples that met a different value of the same series and time in this push; what holds is the token's choice. */
  readonly met: readonly PushMeeting[];
}

export interface PushMeeting {
  readonly index: number;
  /** The earlier sample it met. */
  readonly first: number;
  readonly reason: string;
}

/** A sample that was not taken; `index` from 0: of samples, in text formats of lines. */
export interface PushRefusal {
  readonly index: number;
  readonly reason: string;
}

export interface Intake {
  readonly id: string;
  readonly fileName: string;
  readonly status: 'reading' | 'done' | 'cancelled' | 'undone';
  readonly startedAt: number;
  readonly startedBy: string;
  readonly rows: number;
  readonly added: number;
  readonly unchanged: number;
  readonly corrected: number;
  readonly refusedCount: number;
  /** The balance of its lines and what became of its columns; empty for files brought in before these were kept. */
  readonly notes: { readonly balance?: Balance; readonly columns?: readonly FoundColumn[] };
  readonly lines: readonly ToldLine[];
  readonly metrics: readonly {
    readonly metricId: string;
    readonly name: string;
    readonly assetName: string;
    readonly added: number;
  }[];
}

/** What the server tells over the live connection; screens read again what it names. */
export type LiveTopic =
  | 'samples'
  | 'alarms'
  | 'flags'
  | 'boards'
  | 'metrics'
  | 'logs'
  | 'notices'
  | 'indicators'
  /** The database cannot be reached: what is shown may be old. */
  | 'away'
  /** It can be reached again, and messages may have been missed. */
  | 'everything';
export interface LiveMessage {
  readonly topic: LiveTopic;
  readonly ids: readonly string[];
}

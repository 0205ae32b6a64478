import type { AlarmState, SetAside } from '../alarms/lifecycle';
import type { Level, TargetBand } from '../bands/targetBand';
import type { FeedHealth } from '../feeds/feedHealth';
import type { Refusal } from '../intake/rowReader';
import type { Interval } from '../time/interval';
import type { WindowSpec } from '../time/window';
import type { Measure } from '../board/board';
import type { MetricKind, Summary } from './metric';
import type { ReferencePeriod } from './reference';
import type { Flag } from './flags';
import type { Role } from './roles';

/* What server and app say to each other. Ids are strings; times are ms since the Unix epoch. */

export interface Person {
  readonly id: string;
  readonly name: string;
  readonly role: Role;
}

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

/** One metric as a number used it. */
export interface ProvenancePart {
  readonly metricId: string;
  readonly metricName: string;
  readonly assetName: string;
  readonly summary: string;
  readonly unit: string;
  readonly samples: number;
  readonly coverage: number;
  readonly value: number | null;
  /** What it was computed from. */
  readonly basis: 'samples' | 'rollup' | 'derived' | 'reference';
  readonly sources: readonly ProvenanceSource[];
}

/** Where samples of the window came from: a file that was brought in, or pushes. */
export interface ProvenanceSource {
  readonly kind: 'file' | 'push';
  readonly name: string;
  readonly importedAt: number | null;
  readonly samples: number | null;
}

/** How a number was made. */
export interface Provenance {
  readonly formula: string;
  readonly window: Interval;
  readonly zone: string;
  readonly parts: readonly ProvenancePart[];
  readonly minimumCoverage: number;
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

export interface AlarmRule {
  readonly id: string;
  readonly name: string;
  readonly metricId: string;
  readonly side: 'above' | 'below';
  readonly limit: number;
  readonly deadband: number;
  readonly onDelayMs: number;
  readonly offDelayMs: number;
  readonly level: 'caution' | 'breach';
  /** Does a return latch, so that the alarm stands until a person resets it? */
  readonly latching: boolean;
  readonly inForce: boolean;
  readonly inForceFrom: number;
  /** Set aside: its alarms are recorded, and nobody is called; null = not. */
  readonly aside: RuleAside | null;
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
  /** End of the shelf its rule lies on, and why the rule is set aside; null = it is not. */
  readonly shelvedUntil: number | null;
  readonly asideReason: string | null;
  readonly level: 'caution' | 'breach';
  readonly side: 'above' | 'below';
  readonly limit: number;
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
  readonly raisedValue: number;
  readonly returnedAt: number | null;
  readonly latestValue: number | null;
  readonly acknowledgedBy: string | null;
  readonly acknowledgedAt: number | null;
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
    | 'putBack'
    | 'remark'
    | 'flagged'
    | 'flagClosed'
    | 'ruleRetired'
    | 'recalculated';
  readonly personName: string | null;
  readonly value: number | null;
  readonly remark: string | null;
}

export interface IndicatorReading {
  readonly id: string;
  readonly name: string;
  readonly assetName: string;
  readonly plantId: string;
  readonly measure: Measure;
  readonly window: WindowSpec;
  readonly band: TargetBand;
  readonly decimals: number;
  readonly reading: Reading;
}

/** Everything On watch shows. */
export interface Watch {
  readonly now: number;
  readonly plants: readonly { readonly id: string; readonly name: string; readonly zone: string }[];
  readonly alarms: readonly Alarm[];
  readonly flags: readonly Flag[];
  readonly indicators: readonly IndicatorReading[];
  readonly silentFeeds: readonly Metric[];
}

/** How long an indicator lay on each level, by the hour. */
export interface IndicatorLoss {
  readonly id: string;
  readonly name: string;
  readonly assetName: string;
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
}

/** Answer to a push: what happened to every sample. */
export interface PushAnswer {
  readonly added: number;
  readonly unchanged: number;
  readonly corrected: number;
  readonly refused: readonly PushRefusal[];
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
  readonly refusals: readonly Refusal[];
  readonly metrics: readonly { readonly metricId: string; readonly name: string; readonly added: number }[];
}

/** What the server tells over the live connection; screens read again what it names. */
export type LiveTopic = 'samples' | 'alarms' | 'flags' | 'boards' | 'metrics' | 'logs';
export interface LiveMessage {
  readonly topic: LiveTopic;
  readonly ids: readonly string[];
}

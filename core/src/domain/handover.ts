import type { Interval } from '../time/interval';
import type { Flag } from './flags';
import type { StopEntry, StretchRemark } from './logs';
import type { Alarm, SilentFeeds, RuleAside } from './wire';

/** A stretch that one shift hands over to the next. */
export interface HandoverShift extends Interval {
  readonly name: string;
}

/** What is set aside when a shift ends. */
export interface SetAsideLine {
  readonly ruleId: string;
  readonly ruleName: string;
  readonly assetName: string;
  readonly aside: RuleAside;
}

/** What a shift leaves for the next in its own words. */
export interface HandoverNote {
  readonly id: string;
  readonly text: string;
  readonly author: string;
  readonly at: number;
}

/** One page of what happened in a shift of a plant, and what is still open. Times in ms. */
export interface Handover {
  readonly plantId: string;
  readonly plantName: string;
  readonly zone: string;
  readonly now: number;
  /** The shift told of, and those that can be chosen, newest first. */
  readonly shift: HandoverShift;
  readonly shifts: readonly HandoverShift[];
  /** Raised in the shift, also when they called again while waiting; newest first. */
  readonly raised: readonly Alarm[];
  readonly standing: readonly Alarm[];
  readonly setAside: readonly SetAsideLine[];
  readonly openFlags: readonly Flag[];
  readonly closedFlags: readonly Flag[];
  readonly stops: readonly StopEntry[];
  readonly stoppedMs: number;
  readonly remarks: readonly (StretchRemark & { readonly assetName: string })[];
  readonly silent: SilentFeeds;
  readonly notes: readonly HandoverNote[];
}

/** An unacknowledged alarm of a rule with escalation. Times in ms. */
export interface Unanswered {
  /** When people were last notified: when it was raised or reinstated. */
  readonly calledAt: number;
  /** Last escalation; null = never. */
  readonly reportedAt: number | null;
  /** Time allowed for acknowledging it. */
  readonly afterMs: number;
}

/**
 * Whether to escalate now. Escalates once after each notification.
 *
 * @example isEscalationDue({ calledAt: 0, reportedAt: null, afterMs: 600_000 }, 600_000) // => true
 */
export function isEscalationDue({ calledAt, reportedAt, afterMs }: Unanswered, now: number): boolean {
  return (reportedAt === null || reportedAt < calledAt) && calledAt + afterMs <= now;
}

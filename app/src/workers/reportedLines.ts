import type { ReportedLine } from '@vivid-beacon/core/src/intakeFiles';

/** Keeps the first reported lines of each kind; further ones are only counted. */
export class ReportedLines {
  readonly kept: ReportedLine[] = [];
  readonly counts: Record<ReportedLine['kind'], number> = {
    refused: 0,
    leftOut: 0,
    repeated: 0,
    met: 0,
    short: 0,
  };

  constructor(private readonly mostOfAKind: number) {}

  add = (told: ReportedLine): void => {
    if (++this.counts[told.kind] <= this.mostOfAKind) this.kept.push(told);
  };
}

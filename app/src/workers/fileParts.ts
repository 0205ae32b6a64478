import { storableText, encodeColumns } from '@vivid-beacon/core';
import type { ReportedLine } from '@vivid-beacon/core/src/intakeFiles';

const NUMBERS_A_PART = 200_000;
const TOLD_A_PART = 5000;
/** This many lines of a kind are kept with their reasons; further ones are only counted. */
const KEPT: Readonly<Record<ReportedLine['kind'], number>> = {
  refused: 500_000,
  leftOut: 50_000,
  repeated: 50_000,
  met: 50_000,
  short: 50_000,
};

/** Sends one part to the server. */
export type SendPart = (bytes: Uint8Array<ArrayBuffer>) => Promise<void>;

class Column {
  t = new Float64Array(1024);
  v = new Float64Array(1024);
  n = 0;

  add(t: number, v: number): void {
    if (this.n === this.t.length) {
      const grown = (old: Float64Array): Float64Array<ArrayBuffer> => {
        const next = new Float64Array(old.length * 2);
        next.set(old);
        return next;
      };
      this.t = grown(this.t);
      this.v = grown(this.v);
    }
    this.t[this.n] = t;
    this.v[this.n++] = v;
  }
}

/** Samples on their way to the server, cut into parts. */
export class FileParts {
  private seq = 0;
  private numbers = 0;
  private told: ReportedLine[] = [];
  private columns = new Map<string, Column>();
  private readonly counts = { refused: 0, leftOut: 0, repeated: 0, met: 0, short: 0 };

  constructor(private readonly send: SendPart) {}

  tell = (told: ReportedLine): void => {
    if (++this.counts[told.kind] > KEPT[told.kind]) return;
    const clip = (text: string): string => storableText(text, 200);
    this.told.push({
      ...told,
      column: clip(told.column),
      value: clip(told.value),
      reason: clip(told.reason),
    });
  };

  take = (metricId: string, t: number, v: number): void => {
    let column = this.columns.get(metricId);
    if (!column) {
      column = new Column();
      this.columns.set(metricId, column);
    }
    column.add(t, v);
    this.numbers++;
  };

  get full(): boolean {
    return this.numbers >= NUMBERS_A_PART || this.told.length >= TOLD_A_PART;
  }

  /** Sends what has accumulated. @returns how many parts were sent so far. */
  async flush(): Promise<number> {
    if (this.numbers === 0 && this.told.length === 0) return this.seq;
    const filled = [...this.columns].filter(([, { n }]) => n > 0);
    const head = { seq: this.seq, metricIds: filled.map(([id]) => id), told: this.told };
    const bytes = encodeColumns(
      head,
      filled.flatMap(([, { t, v, n }], i): [string, Float64Array][] => [
        [`t ${i}`, t.subarray(0, n)],
        [`v ${i}`, v.subarray(0, n)],
      ]),
    );
    await this.send(bytes);
    this.seq++;
    this.numbers = 0;
    this.told = [];
    for (const [, column] of filled) column.n = 0;
    return this.seq;
  }
}

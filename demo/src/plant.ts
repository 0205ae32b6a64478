import { metricKey } from './keys';
import { samplesBetween, scenario } from './scenario';

export const TICK_MS = 5000;
const BATCH = 5000;

export interface PlantOptions {
  readonly url: string;
  readonly token: string;
  readonly anchor: number;
  readonly from: number;
  readonly now: () => number;
}

/** A plant whose devices keep sending over HTTP. What could not be sent goes with the next tick. */
export class SimulatedPlant {
  private readonly sent: Map<string, number>;
  private readonly metrics: ReturnType<typeof scenario>;

  constructor(private readonly options: PlantOptions) {
    this.metrics = scenario(options.anchor);
    this.sent = new Map(this.metrics.map((metric) => [metricKey(metric), options.from]));
  }

  /** Sends what the devices have measured since the last call. @returns how many samples were sent. */
  async tick(): Promise<number> {
    const until = this.options.now();
    const samples: { metric: string; t: number; v: number }[] = [];
    const reached = new Map<string, number>();
    for (const metric of this.metrics) {
      const key = metricKey(metric);
      const { t, v } = samplesBetween(metric, this.sent.get(key)!, until);
      if (t.length === 0) continue;
      t.forEach((each, i) => samples.push({ metric: key, t: each, v: v[i] }));
      reached.set(key, t[t.length - 1]);
    }
    for (let i = 0; i < samples.length; i += BATCH) await this.push(samples.slice(i, i + BATCH));
    for (const [key, t] of reached) this.sent.set(key, t);
    return samples.length;
  }

  private async push(samples: readonly object[]): Promise<void> {
    const response = await fetch(`${this.options.url}/api/samples`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', authorization: `Bearer ${this.options.token}` },
      body: JSON.stringify({ samples }),
    });
    if (!response.ok) throw new Error(`The server answered ${response.status} to a push.`);
  }
}

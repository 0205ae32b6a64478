import { performance } from 'node:perf_hooks';

export function median(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];
}

export async function timed(work: () => unknown): Promise<number> {
  const began = performance.now();
  await work();
  return performance.now() - began;
}

/** Runs the two by turns and prints the ratio of their medians beside the limit it must stay under. */
export async function compare(
  name: string,
  ours: () => unknown,
  bare: () => unknown,
  limit: number,
  runs = 9,
): Promise<number> {
  const a: number[] = [];
  const b: number[] = [];
  for (let i = 0; i < runs; i++) {
    a.push(await timed(ours));
    b.push(await timed(bare));
  }
  const ratio = median(a) / median(b);
  report(name, ratio, limit, `${median(a).toFixed(1)} ms / ${median(b).toFixed(1)} ms`);
  return ratio;
}

/** Prints one line of the result. `limit` is the highest value allowed. */
export function report(name: string, value: number, limit: number, detail = ''): void {
  const verdict = value <= limit ? 'within' : 'OVER  ';
  console.log(
    `${verdict} ${value.toFixed(3).padStart(9)} (limit ${limit})  ${name}${detail ? `  [${detail}]` : ''}`,
  );
}

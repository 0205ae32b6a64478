import { TextDecoder, TextEncoder } from 'node:util';
import { writeFrame } from '@vivid-beacon/core';
import { askReading } from './readingBatcher';

Object.assign(globalThis, { TextDecoder, TextEncoder });

interface Sent {
  readonly asks: readonly { readonly kind: string; readonly ask: unknown }[];
  readonly signal: AbortSignal;
  /** Sends a part of the answer; null ends it. */
  readonly answer: (chunk: Uint8Array | null) => void;
}
let sent: Sent[] = [];

/** A server whose answers come chunk by chunk, as the test sends them. */
beforeEach(() => {
  sent = [];
  globalThis.fetch = (async (_: string, { body, signal }: RequestInit) => {
    const chunks: (Uint8Array | null)[] = [];
    let wake: (() => void) | null = null;
    const read = async () => {
      while (chunks.length === 0) await new Promise<void>((resolve) => (wake = resolve));
      const value = chunks.shift()!;
      return value === null ? { done: true } : { done: false, value };
    };
    const answer = (chunk: Uint8Array | null): void => {
      chunks.push(chunk);
      wake?.();
    };
    sent.push({ ...(JSON.parse(body as string) as Pick<Sent, 'asks'>), signal: signal!, answer });
    return { ok: true, status: 200, body: { getReader: () => ({ read }) } };
  }) as unknown as typeof fetch;
});

const json = (index: number, status: number, said: unknown): Uint8Array =>
  writeFrame({ index, status, columns: false, body: new TextEncoder().encode(JSON.stringify(said)) });
/** The question itself does not matter here. */
const ask = (what: unknown, signal?: AbortSignal) => askReading('levels', what as never, signal);
const nextTurn = (ms = 30) => new Promise((resolve) => setTimeout(resolve, ms));

describe('readings that are asked for at the same moment', () => {
  it('go in one request, and each is handed over as soon as it comes', async () => {
    const slow = ask({ of: 'slow' });
    const quick = ask({ of: 'quick' });
    await nextTurn();
    expect(sent).toHaveLength(1);
    expect(sent[0].asks.map(({ ask }) => ask)).toEqual([{ of: 'slow' }, { of: 'quick' }]);
    const frame = json(1, 200, ['quick']);
    sent[0].answer(frame.slice(0, 9));
    sent[0].answer(frame.slice(9));
    expect(await quick).toEqual(['quick']);
    sent[0].answer(json(0, 422, { error: { code: 'BAD_INPUT', message: 'Too long', path: 'window' } }));
    await expect(slow).rejects.toMatchObject({ code: 'BAD_INPUT', message: 'Too long', path: 'window' });
    sent[0].answer(null);
    // A later question is sent in a request of its own.
    void ask({ of: 'later' });
    await nextTurn();
    expect(sent).toHaveLength(2);
  });

  it('are broken off only when nobody waits for any of them', async () => {
    const [one, two] = [new AbortController(), new AbortController()];
    const first = ask(1, one.signal);
    const second = ask(2, two.signal);
    const gone = new AbortController();
    gone.abort();
    const never = ask(3, gone.signal);
    await expect(never).rejects.toBeDefined();
    await nextTurn();
    expect(sent[0].asks).toHaveLength(2);
    one.abort();
    await expect(first).rejects.toBeDefined();
    expect(sent[0].signal.aborted).toBe(false);
    two.abort();
    await expect(second).rejects.toBeDefined();
    expect(sent[0].signal.aborted).toBe(true);
  });

  it('fail with words when the answer ends too early', async () => {
    const asked = ask(1);
    await nextTurn();
    sent[0].answer(json(0, 200, []).slice(0, 10));
    sent[0].answer(null);
    await expect(asked).rejects.toMatchObject({ message: 'The answer ended too early. Try again.' });
  });
});

import fc from 'fast-check';
import pg from 'pg';
import { BytesHeap } from './bytesHeap';

let client: pg.Client;
beforeAll(async () => {
  client = new pg.Client({ connectionString: process.env.TEST_DATABASE_URL });
  await client.connect();
});
afterAll(() => client.end());

describe('BytesHeap', () => {
  it('brings any byte strings and nulls into PostgreSQL as they were', async () => {
    const strings = fc.array(fc.option(fc.uint8Array({ maxLength: 300 }), { nil: null }), { maxLength: 20 });
    await fc.assert(
      fc.asyncProperty(strings, strings, async (first, second) => {
        const heap = new BytesHeap();
        const one = heap.add(first);
        const two = heap.add(second);
        const { rows } = await client.query<{ bytes: Buffer | null }>(
          `select substring($1::bytea from at for length) as bytes
           from unnest($2::int[], $3::int[]) with ordinality as piece (at, length, n) order by n`,
          [heap.done(), [...one.at, ...two.at], [...one.length, ...two.length]],
        );
        expect(rows.map(({ bytes }) => bytes && [...bytes])).toEqual(
          [...first, ...second].map((bytes) => bytes && [...bytes]),
        );
      }),
      { numRuns: 40 },
    );
  });
});

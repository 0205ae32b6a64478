import fc from 'fast-check';
import { decodeColumns, encodeColumns } from './columns';
import { FrameReader, writeFrame } from './frames';

const frame = fc.record({
  index: fc.nat(),
  status: fc.constantFrom(200, 422, 503),
  columns: fc.boolean(),
  body: fc.uint8Array({ maxLength: 40 }),
});

describe('frames', () => {
  it('come back as they were written, wherever the stream is cut', () => {
    fc.assert(
      fc.property(
        fc.array(frame, { maxLength: 6 }),
        fc.array(fc.integer({ min: 1, max: 30 })),
        (frames, cuts) => {
          const stream = frames.flatMap((each) => [...writeFrame(each)]);
          const reader = new FrameReader();
          const read = [];
          for (let at = 0, i = 0; at < stream.length; i++) {
            const next = at + (cuts[i] ?? 1000);
            read.push(...reader.push(Uint8Array.from(stream.slice(at, next))));
            at = next;
          }
          expect(read.map((each) => ({ ...each, body: [...each.body] }))).toEqual(
            frames.map((each) => ({ ...each, body: [...each.body] })),
          );
          expect(reader.cutShort).toBe(false);
        },
      ),
    );
  });

  it('tell when the stream ended too early, and hand columns over so that they can be read', () => {
    const bytes = writeFrame({
      index: 3,
      status: 200,
      columns: true,
      body: encodeColumns({ unit: 'kWh' }, [['v', [1.5, 2.5]]]),
    });
    const reader = new FrameReader();
    expect(reader.push(bytes.slice(0, 30))).toEqual([]);
    expect(reader.cutShort).toBe(true);
    const [{ body }] = reader.push(bytes.slice(30));
    expect(Array.from(decodeColumns(body.buffer).columns.get('v')!)).toEqual([1.5, 2.5]);
  });
});

import fc from 'fast-check';
import { BeaconError } from '@vivid-beacon/core';
import { unexplained } from '@vivid-beacon/core/src/intakeFiles';
import { LATER_FILES } from './fixtures/laterFiles';
import { OWN_FILES } from './fixtures/ownFiles';
import { fileOf, takeAll } from './fixtures/takeAll';
import { WRITTEN_FILES } from './fixtures/writtenFiles';

/* Files damaged in transit or crafted to harm: bytes changed, cut off, doubled and mixed. */

/** `npm run fuzz` tries more of them. */
const RUNS = Number(process.env.FUZZ_FILES ?? 150);
/** Anything slower is stuck: the files are a few kB. */
const STUCK_MS = 20_000;

const bytesOf = (content: string | Uint8Array): Uint8Array =>
  typeof content === 'string' ? new TextEncoder().encode(content) : content;

const ODD = [
  '\u0000',
  '\ufeff',
  '"',
  '\n',
  '\r',
  ',',
  ';',
  '\t',
  '{',
  '[[',
  '9'.repeat(40),
  '-',
  'e',
  '1e309',
  '\ud83d\ude00',
];

type Damage = (bytes: Uint8Array) => Uint8Array;
const damage: fc.Arbitrary<Damage> = fc.oneof(
  fc
    .tuple(fc.double({ min: 0, max: 1, noNaN: true }), fc.integer({ min: 0, max: 255 }))
    .map(([at, byte]): Damage => (bytes) => {
      const out = Uint8Array.from(bytes);
      if (out.length > 0) out[Math.min(out.length - 1, Math.floor(at * out.length))] = byte;
      return out;
    }),
  fc.double({ min: 0, max: 1, noNaN: true }).map(
    (share): Damage =>
      (bytes) =>
        bytes.slice(0, Math.floor(bytes.length * share)),
  ),
  fc.double({ min: 0, max: 1, noNaN: true }).map(
    (share): Damage =>
      (bytes) =>
        bytes.slice(Math.floor(bytes.length * share)),
  ),
  fc
    .tuple(fc.double({ min: 0, max: 1, noNaN: true }), fc.constantFrom(...ODD))
    .map(([at, text]): Damage => (bytes) => {
      const cut = Math.floor(at * bytes.length);
      return Uint8Array.from([...bytes.slice(0, cut), ...bytesOf(text), ...bytes.slice(cut)]);
    }),
  fc.constant<Damage>((bytes) => Uint8Array.from([...bytes, ...bytes])),
);

it('any damaged file is read with every line accounted for, asked about, or refused with words', async () => {
  const written = await Promise.all(
    WRITTEN_FILES.map(async ({ name, write }) => ({ name, content: await write() })),
  );
  const small = [...OWN_FILES, ...LATER_FILES, ...written]
    .map(({ name, content }) => ({ name, bytes: bytesOf(content) }))
    .filter(({ bytes }) => bytes.length < 100_000);
  expect(small.length).toBeGreaterThan(80);
  await fc.assert(
    fc.asyncProperty(
      fc.constantFrom(...small),
      fc.array(damage, { minLength: 1, maxLength: 4 }),
      async ({ name, bytes }, damages) => {
        const began = performance.now();
        try {
          const { balance } = await takeAll(
            fileOf(
              name,
              damages.reduce((all, each) => each(all), bytes),
            ),
          );
          if (balance) expect(unexplained(balance)).toBe(0);
        } catch (error) {
          if (!(error instanceof BeaconError)) throw error;
          expect(error.message).toMatch(/\.$|\.\)?$|:/);
        }
        expect(performance.now() - began).toBeLessThan(STUCK_MS);
      },
    ),
    { numRuns: RUNS },
  );
}, 300_000);

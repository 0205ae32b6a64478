import { flagEvidenceSchema, readWindowText, type StretchNumbers } from '@vivid-beacon/core';
import { stretchEvidence, stretchText } from './stretchWords';

const HOUR = 3_600_000;
const START = Date.UTC(2026, 10, 19, 6);
const numbers = (part: Partial<StretchNumbers> = {}): StretchNumbers => ({
  value: 12,
  unit: 'kW',
  coverage: 0.98,
  samples: 60,
  values: [{ summary: 'mean', value: 12.345, unit: 'kW' }],
  levels: { clear: HOUR, caution: 0, breach: 0, nodata: 0 },
  levelsBy: null,
  ...part,
});
const seen = (all: StretchNumbers[]) => ({
  title: 'Power',
  stretch: { start: START, end: START + HOUR },
  zone: 'Europe/London',
  all,
  nameOf: (i: number) => `Power, Dryer ${i + 1}`,
});

describe('evidence of a stretch', () => {
  it('keeps the numbers as they are told, and an address with this very window on the local clock', () => {
    globalThis.history.pushState({}, '', '/boards/4?focus=7&window=old');
    const evidence = stretchEvidence(seen([numbers()]));
    expect(evidence.title).toBe('Power, Dryer 1');
    expect(evidence.numbers).toContainEqual({ name: expect.stringMatching(/mean/i), text: '12.35 kW' });
    expect(evidence.numbers).toContainEqual({ name: 'Clear', text: expect.stringMatching(/^1.h$/) });
    const address = new URL(evidence.address, 'http://x');
    expect([address.pathname, address.searchParams.get('focus')]).toEqual(['/boards/4', '7']);
    expect(readWindowText(address.searchParams.get('window')!)).toMatchObject({
      kind: 'absolute',
      start: '2026-11-19T06:00:00',
      end: '2026-11-19T07:00:00',
    });
  });

  it('is taken by the server however many metrics there are', () => {
    const many = stretchEvidence(seen(Array.from({ length: 20 }, () => numbers())));
    expect(many.numbers[0].name).toContain('Power, Dryer 1: ');
    expect(flagEvidenceSchema.isValidSync(many)).toBe(true);
  });

  it('falls into the columns of a sheet as text', () => {
    const { nameOf, all } = seen([numbers({ levels: null })]);
    expect(stretchText('Power', 'today', all, nameOf).split('\n')).toEqual(
      expect.arrayContaining(['Power', 'Power, Dryer 1', expect.stringMatching(/^Mean.*\t12\.35 kW$/)]),
    );
  });
});

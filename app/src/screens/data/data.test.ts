import type { Asset } from '@vivid-beacon/core';
import { readAssetList } from './AssetListImport';
import { parseAttributes, formatAttributes } from './attributeText';
import { insertAt, nameFor, wordAt } from './expressionText';
import { readJobs, readStops, timeFormatsOf } from './logFile';
import { readPasted } from '../../components/readPasted';

const asset = (id: string, parentId: string | null, title: string, attributes = {}): Asset => ({
  id,
  parentId,
  name: title.split(' / ').at(-1)!,
  kind: parentId ? 'machine' : 'plant',
  zone: 'Europe/London',
  ownZone: null,
  plantId: '1',
  path: [],
  title,
  attributes,
});
const TREE = [
  asset('1', null, 'Quayside'),
  asset('2', '1', 'Quayside / Hall'),
  asset('3', '2', 'Quayside / Hall / Ironer 2', { Maker: 'Acme' }),
  asset('4', '2', 'Quayside / Hall / Ironer 1', { 'Rated speed': 32 }),
  asset('5', null, 'Weir'),
  asset('6', '5', 'Weir / Ironer 2'),
];
describe('attributes as text', () => {
  it('come back as they were, numbers as numbers', () => {
    const facts = { 'Floor area (m²)': 12.5, Maker: 'A: B' };
    expect(parseAttributes(formatAttributes(facts))).toEqual(facts);
    expect(parseAttributes('Area: 12,5')).toEqual({ Area: 12.5 });
    expect(parseAttributes('a: 1\nno colon')).toBe('Line 2 must be a name, a colon and a value');
  });
});

describe('a list of assets', () => {
  it('is read by its headings; other columns are attributes', () => {
    expect(readAssetList('path;kind;Floor area (m²)\nQuayside / Hall;area;420\n')).toEqual([
      {
        line: 2,
        path: ['Quayside', 'Hall'],
        kind: 'area',
        zone: null,
        attributes: { 'Floor area (m²)': 420 },
      },
    ]);
    expect(readAssetList('name\nx')).toContain('"path"');
  });
});

describe('typing an expression', () => {
  it('completes the word that is being typed', () => {
    expect(wordAt('gas / wei')).toBe('wei');
    expect(insertAt('gas / wei', 'weight')).toBe('gas / weight');
    expect(insertAt('gas /', 'weight')).toBe('gas / weight');
    expect(insertAt('', 'gas')).toBe('gas');
    expect(insertAt('ro', 'round(')).toBe('round(');
  });

  it('makes names of labels that are not taken', () => {
    expect(nameFor('Gas used', [])).toBe('gas_used');
    expect(nameFor('Gas used', ['gas_used'])).toBe('gas_used_2');
    expect(nameFor('Größe (m²)', [])).toBe('gro_e_m2');
    expect(nameFor('3rd pump', [])).toBe('_3rd_pump');
  });
});

describe('log files', () => {
  const text =
    'Asset,Start,End,Reason\nWeir / Ironer 2,2026-11-19 06:00,2026-11-19 06:30,Belt\nIroner 2,2026-11-19 07:00,,Belt\nIroner 1,2026-11-19 08:00,-,Belt\n';

  it('give stops by place and local time; doubtful places are refused by line', () => {
    const read = readStops(text, TREE, 'iso');
    if (typeof read === 'string') throw new Error(read);
    expect(read.entries.map(({ assetId, start, end }) => [assetId, start, end])).toEqual([
      ['6', Date.UTC(2026, 10, 19, 6), Date.UTC(2026, 10, 19, 6, 30)],
      ['4', Date.UTC(2026, 10, 19, 8), null],
    ]);
    expect(read.refused).toEqual([
      { line: 3, reason: expect.stringContaining('no single asset named "Ironer 2"') },
    ]);
    expect(readStops('a,b\n1,2', TREE, 'iso')).toContain('"asset" is missing');
  });

  it('join the rows of a job to one history', () => {
    const jobs =
      'asset,number,at,status\nHall,7,2026-11-19 09:00,Done\nHall,7,2026-11-19 08:00,Received\nHall,8,soon,Received\n';
    const read = readJobs(jobs, TREE, 'iso');
    if (typeof read === 'string') throw new Error(read);
    expect(read.entries).toHaveLength(1);
    expect(read.entries[0].history.map(({ status }) => status)).toEqual(['Received', 'Done']);
    expect(read.refused).toHaveLength(1);
  });

  it('do not decide between day-first and month-first', () => {
    expect(timeFormatsOf('asset,start,reason\nHall,03/04/2026 06:00,x\n', 'stops')).toEqual([
      'day-first',
      'month-first',
    ]);
  });
});

describe('values pasted from a sheet', () => {
  it('are dates and numbers in either notation', () => {
    expect(readPasted('2026-01-01\t4200\n2026-02\t1.234,5\n')).toEqual([
      { start: '2026-01-01', value: 4200 },
      { start: '2026-02-01', value: 1234.5 },
    ]);
    expect(readPasted('soon\t1')).toContain('Row 1');
    expect(readPasted('2026-01-01\tmany')).toContain('not a number');
  });
});

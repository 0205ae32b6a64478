import type { Level } from '../bands/targetBand';

/** Colour tokens. Components use only these. */
export interface Palette {
  readonly ground: string;
  readonly sheet: string;
  readonly well: string;
  readonly ink: string;
  readonly ink2: string;
  readonly ink3: string;
  readonly line: string;
  readonly line2: string;
  readonly bar: string;
  readonly sea: string;
  readonly water: string;
  readonly clear: string;
  readonly clearT: string;
  readonly caution: string;
  readonly cautionT: string;
  readonly cautionW: string;
  readonly breach: string;
  readonly breachT: string;
  readonly breachW: string;
  readonly nodata: string;
  readonly beam: string;
  readonly btn: string;
  readonly btnT: string;
  readonly beamTop: number;
}

export const DAY: Palette = {
  ground: '#F0E6CC',
  sheet: '#FCFAF3',
  well: '#F6F1E2',
  ink: '#12272F',
  ink2: '#41535A',
  ink3: '#5B686B',
  line: '#DED4BA',
  line2: '#837D68',
  bar: '#7D9596',
  sea: '#0E5A6B',
  water: '#DCEAEA',
  clear: '#47807C',
  clearT: '#28605D',
  caution: '#C26B00',
  cautionT: '#8A4A00',
  cautionW: '#FBE3C4',
  breach: '#B3125D',
  breachT: '#A00F53',
  breachW: '#F9DDE8',
  nodata: '#6B7275',
  beam: '#3F7C86',
  btn: '#12272F',
  btnT: '#FCFAF3',
  beamTop: 0.78,
};

export const NIGHT: Palette = {
  ground: '#0A161B',
  sheet: '#11232A',
  well: '#0D1C22',
  ink: '#F5EBD5',
  ink2: '#BEC3B6',
  ink3: '#98A5A1',
  line: '#284048',
  line2: '#66797A',
  bar: '#5D7F88',
  sea: '#86D0DA',
  water: '#19404A',
  clear: '#74B5AC',
  clearT: '#92CAC1',
  caution: '#F3A43C',
  cautionT: '#F6B55E',
  cautionW: '#3B2A14',
  breach: '#FF6BA6',
  breachT: '#FF8FBC',
  breachW: '#44182E',
  nodata: '#8F9C9B',
  beam: '#F2E3BC',
  btn: '#F5EBD5',
  btnT: '#11232A',
  beamTop: 0.92,
};

/** Name of a colour; day and night resolve it differently. */
export type Ink = Exclude<keyof Palette, 'beamTop'>;

const SHAPES: Readonly<Record<Level, Ink>> = {
  clear: 'clear',
  caution: 'caution',
  breach: 'breach',
  nodata: 'nodata',
};
const WORDS: Readonly<Record<Level, Ink>> = {
  clear: 'clearT',
  caution: 'cautionT',
  breach: 'breachT',
  nodata: 'ink3',
};

/** Colour of a level's shape. */
export const shapeInk = (level: Level): Ink => SHAPES[level];

/** Colour of a level's word. */
export const wordInk = (level: Level): Ink => WORDS[level];

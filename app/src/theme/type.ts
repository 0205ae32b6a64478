import type { TextStyle } from 'react-native';

const BESLEY = (weight: '600SemiBold' | '700Bold'): string => `Besley_${weight}, Georgia, serif`;
const BARLOW = (weight: '400Regular' | '500Medium' | '600SemiBold'): string =>
  `BarlowSemiCondensed_${weight}, "Arial Narrow", Arial, sans-serif`;

/** Figures of equal width, so that numbers in a column line up and do not dance. */
const FIGURES: TextStyle = { fontVariant: ['tabular-nums', 'lining-nums'] };

/** The roles of text. Sizes in px; they grow with the browser's zoom. */
export const TYPE = {
  pageTitle: { fontFamily: BESLEY('700Bold'), fontSize: 25, lineHeight: 30 },
  sectionHead: { fontFamily: BESLEY('700Bold'), fontSize: 16, lineHeight: 20 },
  readoutTitle: { fontFamily: BESLEY('700Bold'), fontSize: 15, lineHeight: 20 },
  sentence: { fontFamily: BESLEY('600SemiBold'), fontSize: 18, lineHeight: 36 },
  slot: { fontFamily: BESLEY('700Bold'), fontSize: 18, lineHeight: 30 },
  hero: { fontFamily: BARLOW('600SemiBold'), fontSize: 46, lineHeight: 48, ...FIGURES },
  figure: { fontFamily: BARLOW('600SemiBold'), fontSize: 18, lineHeight: 20, ...FIGURES },
  rowTitle: { fontFamily: BARLOW('600SemiBold'), fontSize: 16, lineHeight: 20, ...FIGURES },
  body: { fontFamily: BARLOW('400Regular'), fontSize: 15, lineHeight: 20, ...FIGURES },
  bodyStrong: { fontFamily: BARLOW('600SemiBold'), fontSize: 15, lineHeight: 20, ...FIGURES },
  second: { fontFamily: BARLOW('400Regular'), fontSize: 14, lineHeight: 18, ...FIGURES },
  caption: { fontFamily: BARLOW('500Medium'), fontSize: 12, lineHeight: 16, ...FIGURES },
} as const satisfies Record<string, TextStyle>;

export type TypeRole = keyof typeof TYPE;

/** For text inside a drawing. */
export const SVG_FONT = BARLOW('500Medium');
export const SVG_FONT_STRONG = BARLOW('600SemiBold');

import type { TextStyle } from 'react-native';
import type { Face } from '@vivid-beacon/core/src/drawing/scene';

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

/** The fonts that drawings are written in. */
export const SVG_FONTS: Readonly<Record<Face, string>> = {
  regular: BARLOW('400Regular'),
  medium: BARLOW('500Medium'),
  strong: BARLOW('600SemiBold'),
  title: BESLEY('700Bold'),
};

import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { FACES, type Face } from '@vivid-beacon/core/src/drawing/scene';

const require = createRequire(import.meta.url);

/** How a shipped font is named in SVG, and where its file is. */
export interface FaceFont {
  readonly family: string;
  readonly weight: number;
  readonly file: string;
}

const barlow = (weight: number, style: string): FaceFont => ({
  family: 'Barlow Semi Condensed',
  weight,
  file: require.resolve(
    `@expo-google-fonts/barlow-semi-condensed/${weight}${style}/BarlowSemiCondensed_${weight}${style}.ttf`,
  ),
});

/** The fonts of the app's packages: a picture is written in the letters of the screen. */
export const FONTS: Readonly<Record<Face, FaceFont>> = {
  regular: barlow(400, 'Regular'),
  medium: barlow(500, 'Medium'),
  strong: barlow(600, 'SemiBold'),
  title: {
    family: 'Besley',
    weight: 700,
    file: require.resolve('@expo-google-fonts/besley/700Bold/Besley_700Bold.ttf'),
  },
};

export const FONT_FILES: readonly string[] = FACES.map((face) => FONTS[face].file);

const known = new Map<Face, string>();

/** A style sheet that brings the fonts along, so that a picture looks the same where they are not installed. */
export function fontFaces(faces: ReadonlySet<Face>): string {
  return FACES.filter((face) => faces.has(face))
    .map((face) => {
      const { family, weight, file } = FONTS[face];
      const data = known.get(face) ?? readFileSync(file).toString('base64');
      known.set(face, data);
      return `@font-face{font-family:"${family}";font-weight:${weight};src:url(data:font/ttf;base64,${data}) format("truetype")}`;
    })
    .join('');
}

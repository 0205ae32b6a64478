import * as yup from 'yup';
import { content, contracts } from './contract';

export const SVG = 'image/svg+xml';
export const PNG = 'image/png';
export const CSV = 'text/csv';

/** How a picture is drawn: `width`, `height` in px (no height: as usual for the form), the look as in a board's address. */
const pictureQuery = yup
  .object({
    width: yup.number().integer().min(80).max(2400).default(480),
    height: yup.number().integer().min(80).max(2400).nullable().default(null),
    theme: yup
      .string()
      .oneOf(['day', 'night'] as const)
      .default('day'),
    /** Pixels of a PNG for each px. */
    scale: yup.number().min(0.5).max(4).default(2),
    /** Only the drawing, without title and footnote? */
    bare: yup.boolean().default(false),
    window: yup.string().max(200),
    scope: yup.string().max(20_000),
    hours: yup.string().max(5_000),
    focus: yup.string().max(19),
  })
  .noUnknown();

/** The id of a readout with .svg, .png or .csv. */
export const PICTURE_NAME = /^(.{1,40})\.(svg|png|csv)$/;

export const picturesApi = contracts({
  'GET /api/boards/:id/readouts/:picture': {
    access: 'viewer',
    summary:
      'A readout of a board as a picture, or its numbers as rows: its id with .svg, .png or .csv. Contains only what the caller may see; window, scope, hours and focus as in the address of the board.',
    names: { picture: PICTURE_NAME },
    query: pictureQuery,
    answer: content(
      [SVG, PNG, CSV],
      'pictures with the fonts of the screen; numbers unrounded, times in ISO 8601',
    ),
    errors: {
      404: 'NOT_FOUND for a removed board or readout',
      422: 'BAD_INPUT for a PNG of more than 40 million pixels, or if a query of the readout is refused',
    },
  },
});

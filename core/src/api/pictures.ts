import * as yup from 'yup';
import { content, contracts } from './contract';
import { NDJSON } from './samples';

export const SVG = 'image/svg+xml';
export const PNG = 'image/png';
export const CSV = 'text/csv';
export const XLSX = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

/** How a board is looked at, as its address says it. */
const look = {
  window: yup.string().max(200),
  scope: yup.string().max(20_000),
  hours: yup.string().max(5_000),
  focus: yup.string().max(19),
};
const lookQuery = yup.object(look).noUnknown();

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
    ...look,
  })
  .noUnknown();

/** Kinds of file that a readout goes out as. */
export const PICTURE_KINDS = ['png', 'svg', 'csv', 'xlsx', 'ndjson'] as const;

/** The id of a readout with the kind of file. */
export const PICTURE_NAME = /^(.{1,40})\.(svg|png|csv|xlsx|ndjson)$/;

export const picturesApi = contracts({
  'GET /api/boards/:id/readouts/:picture': {
    access: 'viewer',
    summary:
      'A readout of a board as a picture, or its numbers as rows: its id with .svg, .png, .csv, .xlsx or .ndjson. Contains only what the caller may see; window, scope, hours and focus as in the address of the board.',
    names: { picture: PICTURE_NAME },
    query: pictureQuery,
    answer: content(
      [SVG, PNG, CSV, XLSX, NDJSON],
      'pictures with the fonts of the screen; numbers unrounded, times in ISO 8601; a workbook also says what they are of',
    ),
    errors: {
      404: 'NOT_FOUND for a removed board or readout',
      422: 'BAD_INPUT for a PNG of more than 40 million pixels, a workbook of more than a million cells, or if a query of the readout is refused',
    },
  },
  'GET /api/boards/:id/numbers.xlsx': {
    access: 'viewer',
    summary:
      'The numbers of a board as one workbook: a sheet for each readout and one that says what they are of. Contains only what the caller may see; window, scope, hours and focus as in the address of the board. A readout that is refused has its reason in its sheet.',
    query: lookQuery,
    answer: content([XLSX], 'numbers unrounded, moments on the clock of the site'),
    errors: {
      404: 'NOT_FOUND for a removed board',
      422: 'BAD_INPUT for a workbook of more than a million cells',
    },
  },
});

import * as yup from 'yup';
import { boardDocumentSchema, boardTitleSchema } from '../board/board';
import { countedNumber, idText } from '../schemas/parts';
import { boardChangesSchema } from '../board/boardChanges';
import { AUDIENCES, boardLabelsSchema, boardShareSchema, boardSharesSchema } from '../board/sharing';
import { boardListSchema, pageFields } from '../schemas/lists';
import {
  amount,
  amountOrNull,
  dictionary,
  list,
  oneOf,
  shape,
  text,
  textOrNull,
  truth,
  type TypeOf,
  named,
} from '../schemas/shape';
import { pageOf } from './assets';
import { contracts, json, nothing } from './contract';

const boardShared = shape({
  ownerId: text(),
  shares: list(boardShareSchema),
  /** Names of the people and plants in them, by "person:12" and "plant:7". */
  names: dictionary(text()),
});
/** With whom a board is shared. */
export type BoardShared = TypeOf<typeof boardShared>;

const board = named(
  'Board',
  shape({
    id: text(),
    title: text(),
    document: boardDocumentSchema.required(),
    /** Increases with every change; a save has to name the revision it is based on. */
    revision: amount(),
    ownerId: text(),
    ownerName: text(),
    updatedAt: amount(),
    /** Since when it is in the archive; null = it is in use. */
    archivedAt: amountOrNull(),
    labels: list(text()),
    audience: oneOf(AUDIENCES),
    /** Whether the caller may change it. */
    mayChange: truth(),
    /** Whether it is among the favourites of the caller. */
    favourite: truth(),
    /** Ids of metrics on it that are at plants the caller does not see. */
    unseen: list(text()),
  }),
);
export type Board = TypeOf<typeof board>;

const listedBoard = shape({
  id: text(),
  title: text(),
  /** How many readouts it has. */
  readouts: amount(),
  ownerName: text(),
  updatedAt: amount(),
  labels: list(text()),
  audience: oneOf(AUDIENCES),
  favourite: truth(),
});
/** A board as a row of a list. */
export type ListedBoard = TypeOf<typeof listedBoard>;

const boardLabel = shape({ label: text(), boards: amount() });
/** A label, and how many boards bear it. */
export type BoardLabel = TypeOf<typeof boardLabel>;

const boardVersion = named(
  'BoardVersion',
  shape({
    /** The revision that was its last. */
    revision: amount(),
    title: text(),
    /** null = it was saved before versions were kept. */
    savedBy: textOrNull(),
    /** Its first and its last save: what one person saves within ten minutes is one version. */
    begunAt: amount(),
    savedAt: amount(),
    /** The version that was gone back to; null = none. */
    restoredFrom: amountOrNull(),
    /** What differs from the version before; null = there is none any more. */
    changes: boardChangesSchema.nullable(),
  }),
);
/** A board as it was saved once. */
export type BoardVersion = TypeOf<typeof boardVersion>;

const wholeVersion = shape({
  revision: amount(),
  title: text(),
  document: boardDocumentSchema.required(),
  savedBy: textOrNull(),
  savedAt: amount(),
  unseen: list(text()),
});
/** A version with its document. */
export type WholeBoardVersion = TypeOf<typeof wholeVersion>;

const NUMBER = { revision: /^[1-9]\d{0,8}$/ };
const NOT_SHARED = 'NOT_ALLOWED when it is not shared for changing';
const MEANWHILE = 'CHANGED_MEANWHILE when somebody else has saved it';
const WRONG_DOCUMENT = 'BAD_INPUT names the wrong readout and field';

export const boardsApi = contracts({
  'GET /api/boards': {
    access: 'viewer',
    summary: 'Boards that the caller may see, without their content: favourites first, then by title.',
    query: boardListSchema,
    answer: json(pageOf(listedBoard)),
    errors: { 404: 'NOT_FOUND for an asset that the caller may not see' },
  },
  'GET /api/boards/labels': {
    access: 'viewer',
    summary: 'Labels of the boards that the caller may see, by name.',
    answer: json(list(boardLabel)),
  },
  'GET /api/boards/:id': { access: 'viewer', summary: 'One board.', answer: json(board) },
  'POST /api/boards': {
    access: 'viewer',
    summary: 'Adds a board of the caller. Sharing it takes the role analyst at a plant.',
    body: yup
      .object({
        title: boardTitleSchema,
        document: boardDocumentSchema.required(),
        shares: boardSharesSchema.optional().default(() => []),
      })
      .noUnknown(),
    answer: json(board),
    errors: { 403: 'NOT_ALLOWED to share', 422: WRONG_DOCUMENT },
  },
  'PUT /api/boards/:id': {
    access: 'viewer',
    summary: 'Saves a board unless somebody has changed it since the given revision.',
    body: yup
      .object({
        title: boardTitleSchema,
        document: boardDocumentSchema.required(),
        revision: countedNumber().min(1).required(),
      })
      .noUnknown(),
    answer: json(board),
    errors: { 403: NOT_SHARED, 409: MEANWHILE, 422: WRONG_DOCUMENT },
  },
  'DELETE /api/boards/:id': {
    access: 'viewer',
    summary: 'Removes a board.',
    answer: nothing,
    errors: { 403: NOT_SHARED },
  },
  'POST /api/boards/:id/restoration': {
    access: 'viewer',
    summary: 'Restores a board that was removed.',
    answer: nothing,
    errors: { 404: 'NOT_FOUND when it was not removed, or is not shared for changing' },
  },
  'GET /api/boards/:id/sharing': {
    access: 'viewer',
    summary: 'With whom a board is shared, for those who may change it.',
    answer: json(boardShared),
    errors: { 403: NOT_SHARED },
  },
  'PUT /api/boards/:id/sharing': {
    access: 'viewer',
    summary:
      'Shares a board, and gives it to another owner. For its owner, who takes the role analyst at a plant to share it, and administrators of every plant.',
    body: yup.object({ shares: boardSharesSchema.required(), ownerId: idText().required() }).noUnknown(),
    answer: json(boardShared),
    errors: { 403: 'NOT_ALLOWED to others', 422: 'BAD_INPUT for people and plants that do not exist' },
  },
  'PUT /api/boards/:id/labels': {
    access: 'viewer',
    summary: 'Sets the labels of a board.',
    body: yup.object({ labels: boardLabelsSchema.required() }).noUnknown(),
    answer: nothing,
    errors: { 403: NOT_SHARED },
  },
  'PUT /api/boards/:id/archived': {
    access: 'viewer',
    summary: 'Puts a board into the archive, where only those find it who look there, or takes it out.',
    body: yup.object({ archived: yup.boolean().required() }).noUnknown(),
    answer: nothing,
    errors: { 403: NOT_SHARED },
  },
  'PUT /api/boards/:id/favourite': {
    access: 'viewer',
    summary: 'Adds a board to the favourites of the caller, or takes it from them.',
    body: yup.object({ favourite: yup.boolean().required() }).noUnknown(),
    answer: nothing,
  },
  'GET /api/boards/:id/versions': {
    access: 'viewer',
    summary: 'Versions of a board, the newest first, with what changed. The latest 200 are kept.',
    query: yup.object(pageFields()).noUnknown(),
    answer: json(pageOf(boardVersion)),
  },
  'GET /api/boards/:id/versions/:revision': {
    access: 'viewer',
    summary: 'A board as it was saved once.',
    names: NUMBER,
    answer: json(wholeVersion),
  },
  'POST /api/boards/:id/versions/:revision/restoration': {
    access: 'viewer',
    summary: 'Goes back to an earlier version: saves it as a new one.',
    names: NUMBER,
    body: yup.object({ revision: countedNumber().min(1).required() }).noUnknown(),
    answer: json(board),
    errors: { 403: NOT_SHARED, 409: MEANWHILE },
  },
});

import * as yup from 'yup';
import { boardDocumentSchema, boardTitleSchema } from '../board/board';
import { countedNumber } from '../schemas/parts';
import { boardListSchema } from '../schemas/lists';
import { amount, list, shape, text, type TypeOf, named } from '../schemas/shape';
import { pageOf } from './assets';
import { contracts, json, nothing } from './contract';

const board = named(
  'Board',
  shape({
    id: text(),
    title: text(),
    document: boardDocumentSchema.required(),
    /** Increases with every change; a save has to name the revision it is based on. */
    revision: amount(),
    ownerName: text(),
    updatedAt: amount(),
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
});
/** A board as a row of a list. */
export type ListedBoard = TypeOf<typeof listedBoard>;

const WRONG_DOCUMENT = 'BAD_INPUT names the wrong readout and field';

export const boardsApi = contracts({
  'GET /api/boards': {
    access: 'viewer',
    summary: 'Boards by title, without their content.',
    query: boardListSchema,
    answer: json(pageOf(listedBoard)),
  },
  'GET /api/boards/:id': { access: 'viewer', summary: 'One board.', answer: json(board) },
  'POST /api/boards': {
    access: 'analyst',
    summary: 'Adds a board.',
    body: yup.object({ title: boardTitleSchema, document: boardDocumentSchema.required() }).noUnknown(),
    answer: json(board),
    errors: { 422: WRONG_DOCUMENT },
  },
  'PUT /api/boards/:id': {
    access: 'analyst',
    summary: 'Saves a board unless somebody has changed it since the given revision.',
    body: yup
      .object({
        title: boardTitleSchema,
        document: boardDocumentSchema.required(),
        revision: countedNumber().min(1).required(),
      })
      .noUnknown(),
    answer: json(board),
    errors: { 409: 'CHANGED_MEANWHILE when somebody else has saved it', 422: WRONG_DOCUMENT },
  },
  'DELETE /api/boards/:id': { access: 'analyst', summary: 'Removes a board.', answer: nothing },
});

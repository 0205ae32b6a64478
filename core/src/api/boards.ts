import * as yup from 'yup';
import { boardDocumentSchema, boardTitleSchema } from '../board/board';
import { countedNumber } from '../schemas/parts';
import { amount, list, shape, text, type TypeOf, named } from '../schemas/shape';
import { contracts, json, nothing } from './contract';

const board = named(
  'Board',
  shape({
    id: text(),
    title: text(),
    document: boardDocumentSchema.required(),
    /** Goes up by one at every change; a save must name the one it started from. */
    revision: amount(),
    ownerName: text(),
    updatedAt: amount(),
  }),
);
export type Board = TypeOf<typeof board>;

const WRONG_DOCUMENT = 'BAD_INPUT names the readout and field that is wrong';

export const boardsApi = contracts({
  'GET /api/boards': { access: 'viewer', summary: 'Lists boards.', answer: json(list(board)) },
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
    summary: 'Saves a board, if nobody has changed it since the revision it was read at.',
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

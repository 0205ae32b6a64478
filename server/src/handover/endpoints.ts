import * as yup from 'yup';
import { idText, momentMs } from '@vivid-beacon/core';
import { endpoint } from '../http/endpoint';
import { changeAndNotify } from '../live/changeAndNotify';
import { readHandover, readShift } from './read';
import { addNote } from './sql';

export const handoverEndpoints = [
  endpoint({
    method: 'get',
    path: '/api/handover',
    access: 'viewer',
    summary:
      'What happened in a shift of a plant and what is still open: the shift under way, or the one that begins at `shift` (ms).',
    answer: 'Handover: times in ms. 404 NOT_FOUND for a plant or shift that there is not.',
    query: yup
      .object({ plantId: idText().required(), shift: momentMs().nullable().default(null) })
      .noUnknown(),
    handle: ({ app, db, query }) => readHandover(db, query.plantId, query.shift, app.now()),
  }),
  endpoint({
    method: 'post',
    path: '/api/handover/notes',
    access: 'operator',
    summary: 'Leaves words for the next shift.',
    answer: '{ id }. 404 NOT_FOUND for a plant or shift that there is not.',
    body: yup
      .object({
        plantId: idText().required(),
        shift: momentMs().required(),
        text: yup.string().trim().min(1, 'Write something').max(4000).required('Write something'),
      })
      .noUnknown(),
    handle: async ({ app, db, body, person }) => {
      const at = app.now();
      const { shift } = await readShift(db, body.plantId, body.shift, at);
      const note = {
        plantId: body.plantId,
        shiftStart: shift.start,
        text: body.text,
        authorId: person.id,
        at,
      };
      const id = await changeAndNotify(app.pool, 'logs', (own) => addNote(own, note));
      return { id };
    },
  }),
];

import { handoverApi } from '@vivid-beacon/core/src/api/handover';
import { endpoints } from '../http/endpoint';
import { changeAndNotify } from '../live/changeAndNotify';
import { readHandover, readShift } from './read';
import { addNote } from './sql';

export const handoverEndpoints = endpoints(handoverApi, {
  'GET /api/handover': ({ app, db, query }) => readHandover(db, query.plantId, query.shift, app.now()),

  'POST /api/handover/notes': async ({ app, db, body, person }) => {
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
});

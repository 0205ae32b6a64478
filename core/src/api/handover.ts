import * as yup from 'yup';
import { flagEntity } from '../domain/flags';
import { idText, momentMs } from '../schemas/parts';
import { amount, list, shape, text, type TypeOf } from '../schemas/shape';
import { alarm, ruleAside } from './alarms';
import { contracts, json } from './contract';
import { stopEntry } from './logs';
import { stretchRemark } from './remarks';
import { silentFeedsSchema } from './watch';

const handoverShift = shape({ start: amount(), end: amount(), name: text() });
/** A stretch that one shift hands over to the next. */
export type HandoverShift = TypeOf<typeof handoverShift>;

const setAsideLine = shape({ ruleId: text(), ruleName: text(), assetName: text(), aside: ruleAside });
/** Rules that are set aside at the end of a shift. */
export type SetAsideLine = TypeOf<typeof setAsideLine>;

const handoverNote = shape({ id: text(), text: text(), author: text(), at: amount() });
/** A note for the next shift. */
export type HandoverNote = TypeOf<typeof handoverNote>;

const handover = shape({
  plantId: text(),
  plantName: text(),
  zone: text(),
  now: amount(),
  /** The shift shown, and the ones to choose from, newest first. */
  shift: handoverShift,
  shifts: list(handoverShift),
  /** Raised in the shift, including repeated raises; newest first. */
  raised: list(alarm),
  standing: list(alarm),
  setAside: list(setAsideLine),
  openFlags: list(flagEntity),
  closedFlags: list(flagEntity),
  stops: list(stopEntry),
  stoppedMs: amount(),
  remarks: list(stretchRemark),
  silent: silentFeedsSchema,
  notes: list(handoverNote),
});
/** The events of a plant's shift and what is still open. Times in ms. */
export type Handover = TypeOf<typeof handover>;

const GONE = { 404: 'NOT_FOUND for a missing plant or shift' } as const;

export const handoverApi = contracts({
  'GET /api/handover': {
    access: 'viewer',
    summary:
      'What happened in a shift and what is still open: the current shift, or the one that begins at `shift` (ms).',
    query: yup
      .object({ plantId: idText().required(), shift: momentMs().nullable().default(null) })
      .noUnknown(),
    answer: json(handover, 'times in ms'),
    errors: GONE,
  },
  'POST /api/handover/notes': {
    access: 'operator',
    summary: 'Adds a note for the next shift.',
    body: yup
      .object({
        plantId: idText().required(),
        shift: momentMs().required(),
        text: yup.string().trim().min(1, 'Write something').max(4000).required('Write something'),
      })
      .noUnknown(),
    answer: json(shape({ id: text() })),
    errors: GONE,
  },
});

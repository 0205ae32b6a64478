import * as yup from 'yup';
import { flagEntity } from '../domain/flags';
import { idText, momentMs } from '../schemas/parts';
import { amount, list, shape, text, type TypeOf } from '../schemas/shape';
import { alarm, ruleAside } from './alarms';
import { contracts, json } from './contract';
import { stopEntry } from './logs';
import { stretchRemark } from './remarks';
import { silentFeeds } from './watch';

const handoverShift = shape({ start: amount(), end: amount(), name: text() });
/** A stretch that one shift hands over to the next. */
export type HandoverShift = TypeOf<typeof handoverShift>;

const setAsideLine = shape({ ruleId: text(), ruleName: text(), assetName: text(), aside: ruleAside });
/** What is set aside when a shift ends. */
export type SetAsideLine = TypeOf<typeof setAsideLine>;

const handoverNote = shape({ id: text(), text: text(), author: text(), at: amount() });
/** What a shift leaves for the next in its own words. */
export type HandoverNote = TypeOf<typeof handoverNote>;

const handover = shape({
  plantId: text(),
  plantName: text(),
  zone: text(),
  now: amount(),
  /** The shift told of, and those that can be chosen, newest first. */
  shift: handoverShift,
  shifts: list(handoverShift),
  /** Raised in the shift, also when they called again while waiting; newest first. */
  raised: list(alarm),
  standing: list(alarm),
  setAside: list(setAsideLine),
  openFlags: list(flagEntity),
  closedFlags: list(flagEntity),
  stops: list(stopEntry),
  stoppedMs: amount(),
  remarks: list(stretchRemark),
  silent: silentFeeds,
  notes: list(handoverNote),
});
/** One page of what happened in a shift of a plant, and what is still open. Times in ms. */
export type Handover = TypeOf<typeof handover>;

const GONE = { 404: 'NOT_FOUND for a plant or shift that there is not' } as const;

export const handoverApi = contracts({
  'GET /api/handover': {
    access: 'viewer',
    summary:
      'What happened in a shift of a plant and what is still open: the shift under way, or the one that begins at `shift` (ms).',
    query: yup
      .object({ plantId: idText().required(), shift: momentMs().nullable().default(null) })
      .noUnknown(),
    answer: json(handover, 'times in ms'),
    errors: GONE,
  },
  'POST /api/handover/notes': {
    access: 'operator',
    summary: 'Leaves words for the next shift.',
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

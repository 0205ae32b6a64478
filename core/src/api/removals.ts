import * as yup from 'yup';
import { pageFields, searchText } from '../schemas/lists';
import { amount, list, named, oneOf, shape, text, textOrNull, type TypeOf } from '../schemas/shape';
import { pageOf } from './assets';
import { contracts, json, nothing } from './contract';

/** What leaves the lists and can be restored; removed metrics have a list of their own. */
export const RESTORABLE = ['asset', 'board', 'indicator'] as const;
export type Restorable = (typeof RESTORABLE)[number];
const WHAT = { kind: /^(asset|board|indicator)$/ };
/** A board is restored by those who may change it, whatever their role: `POST /api/boards/:id/restoration`. */
const AT_PLANTS = { kind: /^(asset|indicator)$/ };

const removalEffect = named(
  'RemovalEffect',
  shape({
    kind: oneOf(['rule', 'derived', 'indicator', 'board', 'flag', 'narrowed', 'leads'] as const),
    total: amount(),
    /** The first of them. */
    names: list(text()),
  }),
);
/** What changes when something is removed, by kind: `narrowed` boards are narrowed to it, `leads` lead to it. */
export type RemovalEffect = TypeOf<typeof removalEffect>;

const removedThing = named(
  'RemovedThing',
  shape({
    kind: oneOf(RESTORABLE),
    id: text(),
    name: text(),
    /** Names from the plant down to where it was, or the owner of a board. */
    place: text(),
    removedAt: amount(),
    /** Why it cannot be restored; null = it can. */
    taken: textOrNull(),
  }),
);
/** An asset, a board or an indicator that was removed. */
export type RemovedThing = TypeOf<typeof removedThing>;

const EFFECTS = json(list(removalEffect), 'kinds with none are left out');

export const removalsApi = contracts({
  'GET /api/metrics/:id/removal': {
    access: 'analyst',
    summary: 'What rests on a metric and would change if it were removed.',
    answer: EFFECTS,
    errors: { 404: 'NOT_FOUND for a missing metric' },
  },
  'GET /api/removals/:kind/:id': {
    access: 'viewer',
    summary: 'What rests on an asset, a board or an indicator and would change if it were removed.',
    names: WHAT,
    answer: EFFECTS,
    errors: { 404: 'NOT_FOUND when there is none' },
  },
  'GET /api/removals': {
    access: 'analyst',
    summary: 'Assets, indicators and boards the caller may change that were removed, the newest first.',
    query: yup.object({ search: searchText(), ...pageFields() }).noUnknown(),
    answer: json(pageOf(removedThing)),
  },
  'POST /api/removals/:kind/:id/restoration': {
    access: 'analyst',
    summary: 'Restores an asset or an indicator. Rules that were withdrawn with it stay withdrawn.',
    names: AT_PLANTS,
    answer: nothing,
    errors: {
      404: 'NOT_FOUND when it was not removed',
      409: 'WRONG_STATE when its name is taken, or its asset was removed too',
    },
  },
});

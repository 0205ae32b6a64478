import { boardChanges, boardChangesWords } from './boardChanges';
import { BOARD_FORMAT_VERSION, emptyReadout, type BoardDocument, type Readout } from './board';
import { WHOLE_SCOPE } from '../domain/query';

const board = (readouts: readonly Readout[], parts: Partial<BoardDocument> = {}, title = 'Round') => ({
  title,
  document: {
    version: BOARD_FORMAT_VERSION,
    window: { kind: 'toDate', unit: 'day' },
    scope: WHOLE_SCOPE,
    hours: null,
    readouts,
    ...parts,
  } as BoardDocument,
});
const [a, b, c] = ['a', 'b', 'c'].map((id) => emptyReadout(id, 'note'));
const words = (before: Parameters<typeof boardChanges>[0], after: typeof before): string =>
  boardChangesWords(boardChanges(before, after));

it.each([
  ['nothing', board([a, b]), board([a, b]), 'nothing changed'],
  // The database gives members in an order of its own.
  [
    'the order of members',
    board([a]),
    board([Object.fromEntries(Object.entries(a).reverse()) as never]),
    'nothing changed',
  ],
  ['added and removed', board([a, b]), board([a, c]), '1 readout added, 1 readout removed'],
  ['a choice', board([a, b]), board([{ ...a, title: 'Look' }, b]), '1 readout changed'],
  ['the order', board([a, b]), board([b, a]), 'readouts arranged anew'],
  ['a size', board([a]), board([{ ...a, size: { columns: 2, rows: 1 } as never }]), 'readouts arranged anew'],
  ['the first one removed', board([a, b, c]), board([b, c]), '1 readout removed'],
  [
    'title and window',
    board([a]),
    board([a], { window: { kind: 'toDate', unit: 'week' } }, 'Day'),
    'renamed from Round, window, scope or hours changed',
  ],
])('tells %s', (_what, before, after, told) => {
  expect(words(before, after)).toBe(told);
});

import { WHOLE_SCOPE, type Board, type ListedBoard } from '@vivid-beacon/core';
import { BOARD_FORMAT_VERSION } from '@vivid-beacon/core/src/boards';

/** A board of the first person, shared with everybody, that may be changed. */
export function makeBoard(parts: Partial<Board> = {}): Board {
  return {
    id: '3',
    title: 'Wash house',
    document: {
      version: BOARD_FORMAT_VERSION,
      window: { kind: 'rolling', count: 24, unit: 'hour' },
      scope: WHOLE_SCOPE,
      hours: null,
      readouts: [],
    },
    revision: 4,
    ownerId: '1',
    ownerName: 'Ines Varga',
    updatedAt: 0,
    archivedAt: null,
    labels: [],
    audience: 'everybody',
    mayChange: true,
    favourite: false,
    unseen: [],
    ...parts,
  };
}

/** A board as a row of the list. */
export function listedBoard(parts: Partial<ListedBoard> = {}): ListedBoard {
  return {
    id: '3',
    title: 'Wash house',
    readouts: 2,
    ownerName: 'Ines Varga',
    updatedAt: 0,
    labels: [],
    audience: 'everybody',
    favourite: false,
    ...parts,
  };
}

import type { Board, BoardDocument } from '@vivid-beacon/core';
import { useSaveBoard } from '../api/boards';
import { historyOf, useBoardHistoryStore } from '../stores/boardHistoryStore';
import { redone, remember, undone, type History, type Snapshot } from './history';

export interface BoardEdits {
  /** Saves the changed board; the change can be undone. */
  readonly change: (part: Partial<Snapshot>, onDone?: () => void) => void;
  readonly undo: (() => void) | null;
  readonly redo: (() => void) | null;
  readonly saving: boolean;
  readonly error: Error | null;
}

/** Changes of a board, each saved at once, with undo and redo. */
export function useBoardEdits(board: Board): BoardEdits {
  const save = useSaveBoard();
  const history = useBoardHistoryStore(historyOf(board.id));
  const { set } = useBoardHistoryStore((state) => state.actions);
  const now: Snapshot = { title: board.title, document: board.document };
  const write = (to: Snapshot, next: History, onDone?: () => void): void =>
    save.mutate(
      { id: board.id, title: to.title, document: to.document, revision: board.revision },
      {
        onSuccess: () => {
          set(board.id, next);
          onDone?.();
        },
      },
    );
  const step = (found: { to: Snapshot; history: History } | null): (() => void) | null =>
    found && !save.isPending ? () => write(found.to, found.history) : null;
  return {
    change: (part, onDone) => {
      const to = { ...now, ...part };
      if (sameDocument(to, now)) onDone?.();
      else write(to, remember(history, now), onDone);
    },
    undo: step(undone(history, now)),
    redo: step(redone(history, now)),
    saving: save.isPending,
    error: save.error,
  };
}

function sameDocument(a: Snapshot, b: Snapshot): boolean {
  return a.title === b.title && same(a.document, b.document);
}

function same(a: BoardDocument, b: BoardDocument): boolean {
  return a === b || JSON.stringify(a) === JSON.stringify(b);
}

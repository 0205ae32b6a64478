import { create } from 'zustand';
import { NO_HISTORY, type History } from '../boards/history';

interface BoardHistoryState {
  readonly boards: Readonly<Record<string, History>>;
  readonly actions: { readonly set: (boardId: string, history: History) => void };
}

/** What was done to each board since this page was opened, to undo and do again. */
export const useBoardHistoryStore = create<BoardHistoryState>()((set) => ({
  boards: {},
  actions: {
    set: (boardId, history) => set(({ boards }) => ({ boards: { ...boards, [boardId]: history } })),
  },
}));

export const historyOf =
  (boardId: string) =>
  (state: BoardHistoryState): History =>
    state.boards[boardId] ?? NO_HISTORY;

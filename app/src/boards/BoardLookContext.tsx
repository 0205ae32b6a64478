import { createContext, useContext, type ReactNode } from 'react';
import {
  WHOLE_SCOPE,
  type HoursFilter,
  type Scope,
  type TargetBand,
  type WindowSpec,
} from '@vivid-beacon/core';

/** What all readouts of a board answer to. */
export interface BoardLook {
  readonly window: WindowSpec;
  readonly scope: Scope;
  readonly hours: HoursFilter | null;
  /** The asset everything follows; null = none. */
  readonly focus: string | null;
  /** Focuses an asset; the focused one again releases it. */
  readonly onFocus: (assetId: string) => void;
  /** Opens a readout of the board to give it a band; null where nobody may, or no board is. */
  readonly onBand: ((readoutId: string, band: TargetBand) => void) | null;
}

const NO_BOARD: BoardLook = {
  window: { kind: 'periods', count: 7, unit: 'day', current: true },
  scope: WHOLE_SCOPE,
  hours: null,
  focus: null,
  onFocus: () => undefined,
  onBand: null,
};

const Context = createContext<BoardLook>(NO_BOARD);

/** Gives the readouts below it their window, scope, hours and focus. */
export function BoardLookProvider({
  look,
  children,
}: {
  readonly look: BoardLook;
  readonly children: ReactNode;
}) {
  return <Context.Provider value={look}>{children}</Context.Provider>;
}

export function useBoardLook(): BoardLook {
  return useContext(Context);
}

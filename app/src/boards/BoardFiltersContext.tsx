import { createContext, useContext, type ReactNode } from 'react';
import {
  WHOLE_SCOPE,
  type HoursFilter,
  type ReadoutParts,
  type Scope,
  type TargetBand,
  type WindowSpec,
} from '@vivid-beacon/core';

/** The filters that all readouts of a board share. */
export interface BoardFilters {
  readonly window: WindowSpec;
  readonly scope: Scope;
  readonly hours: HoursFilter | null;
  /** The focused asset; null = none. */
  readonly focus: string | null;
  /** Focuses an asset; the focused one again releases it. */
  readonly onFocus: (assetId: string) => void;
  /** Makes a stretch of time the board's window until it is let go; null outside a board. */
  readonly onStretch: ((window: WindowSpec) => void) | null;
  /** Saves how a readout is looked at; null if not permitted or outside a board. */
  readonly onKeep: ((readoutId: string, choices: ReadoutParts) => void) | null;
  /** Opens the editor of a readout's band; null if not permitted or outside a board. */
  readonly onBand: ((readoutId: string, band: TargetBand) => void) | null;
}

const NO_BOARD: BoardFilters = {
  window: { kind: 'periods', count: 7, unit: 'day', current: true },
  scope: WHOLE_SCOPE,
  hours: null,
  focus: null,
  onFocus: () => undefined,
  onStretch: null,
  onKeep: null,
  onBand: null,
};

const Context = createContext<BoardFilters>(NO_BOARD);

/** Gives the readouts below it their window, scope, hours and focus. */
export function BoardFiltersProvider({
  filters,
  children,
}: {
  readonly filters: BoardFilters;
  readonly children: ReactNode;
}) {
  return <Context.Provider value={filters}>{children}</Context.Provider>;
}

export function useBoardFilters(): BoardFilters {
  return useContext(Context);
}

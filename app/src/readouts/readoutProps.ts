import type { Readout } from '@vivid-beacon/core';

/** What every form of readout gets. */
export interface ReadoutProps {
  readonly readout: Readout;
  readonly title: string;
}

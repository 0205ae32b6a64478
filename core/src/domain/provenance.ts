import type { Interval } from '../time/interval';

/** One metric as a number used it. */
export interface ProvenancePart {
  readonly metricId: string;
  readonly metricName: string;
  readonly assetName: string;
  readonly summary: string;
  readonly unit: string;
  readonly samples: number;
  readonly coverage: number;
  readonly value: number | null;
  /** What it was computed from. */
  readonly basis: 'samples' | 'rollup' | 'derived' | 'reference';
  readonly sources: readonly ProvenanceSource[];
}

/** Where samples of the window came from: a file that was brought in, or pushes. */
export interface ProvenanceSource {
  readonly kind: 'file' | 'push';
  readonly name: string;
  readonly importedAt: number | null;
  readonly samples: number | null;
}

/** How a number was made. */
export interface Provenance {
  readonly formula: string;
  readonly window: Interval;
  readonly zone: string;
  readonly parts: readonly ProvenancePart[];
  readonly minimumCoverage: number;
}

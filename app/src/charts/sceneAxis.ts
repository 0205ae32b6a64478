/** A value axis in px; values of one unit. */
export interface SceneAxis {
  readonly unit: string;
  readonly domain: readonly [number, number];
  readonly at: (value: number) => number;
  readonly ticks: readonly number[];
  /** The stretch of values that a broken axis leaves out, and where it lies, px; null = a whole axis. */
  readonly gap: { readonly top: number; readonly from: number; readonly to: number } | null;
}

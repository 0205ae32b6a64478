/** A value axis in px, for one unit. */
export interface PlotAxis {
  readonly unit: string;
  readonly domain: readonly [number, number];
  readonly at: (value: number) => number;
  readonly ticks: readonly number[];
  /** The values that a broken axis leaves out, and the position of the break, px; null = a whole axis. */
  readonly gap: { readonly top: number; readonly from: number; readonly to: number } | null;
}

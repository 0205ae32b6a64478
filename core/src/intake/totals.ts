const TOTAL =
  /^\s*(?:grand\s+)?(?:total|sum|subtotal|summe|gesamt|gesamtsumme|zwischensumme|totale|somme|suma|totaal|mean|average|avg|mittelwert|durchschnitt|moyenne|media|gemiddelde|minimum|maximum|min|max)\b\.?:?/i;

/** Whether the first non-blank cell of a row says "total" or the like. */
export function isTotalWord(cells: readonly string[]): boolean {
  const first = cells.find((cell) => cell.trim() !== '');
  return first !== undefined && TOTAL.test(first);
}

/** Sums, means and extremes of the columns of a block of rows, to check whether a row that calls itself a total is one. */
export interface TotalCheck {
  readonly add: (column: number, value: number) => void;
  /**
   * Whether at least half of these numbers equal the sum, mean, minimum or maximum of the rows since the last
   * total, or of all rows.
   */
  readonly fits: (numbers: readonly (readonly [column: number, value: number])[]) => boolean;
  /** A total ends a block. */
  readonly endBlock: () => void;
}

class Running {
  readonly n: number[] = [];
  readonly sum: number[] = [];
  readonly low: number[] = [];
  readonly high: number[] = [];

  add(column: number, value: number): void {
    if (this.n[column] === undefined) {
      this.n[column] = 1;
      this.sum[column] = this.low[column] = this.high[column] = value;
      return;
    }
    this.n[column]++;
    this.sum[column] += value;
    if (value < this.low[column]) this.low[column] = value;
    if (value > this.high[column]) this.high[column] = value;
  }

  equals(column: number, value: number): boolean {
    if (this.n[column] === undefined) return false;
    const sum = this.sum[column];
    return [sum, sum / this.n[column], this.low[column], this.high[column]].some(
      // Totals are often rounded: half a unit of the third digit is forgiven.
      (each) => Math.abs(each - value) <= Math.max(Math.abs(each), Math.abs(value)) * 0.005,
    );
  }
}

export function totalCheck(): TotalCheck {
  let block = new Running();
  const whole = new Running();
  return {
    add(column, value) {
      // Rows are counted in a column of its own, -1: it has no totals.
      if (column < 0) return;
      block.add(column, value);
      whole.add(column, value);
    },
    fits(numbers) {
      if (numbers.length === 0) return whole.n.length > 0;
      const fitting = numbers.filter(
        ([column, value]) => block.equals(column, value) || whole.equals(column, value),
      );
      return fitting.length >= numbers.length / 2;
    },
    endBlock() {
      block = new Running();
    },
  };
}

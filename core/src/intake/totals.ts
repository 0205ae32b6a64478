const TOTAL =
  /^\s*(?:grand\s+)?(?:total|sum|subtotal|summe|gesamt|gesamtsumme|zwischensumme|totale|somme|suma|totaal|mean|average|avg|mittelwert|durchschnitt|moyenne|media|gemiddelde|minimum|maximum|min|max)\b\.?:?/i;

/** Does the first cell of a row that holds anything say "total" or the like? */
export function isTotalWord(cells: readonly string[]): boolean {
  const first = cells.find((cell) => cell.trim() !== '');
  return first !== undefined && TOTAL.test(first);
}

interface Running {
  n: number;
  sum: number;
  low: number;
  high: number;
}

/** Sums, means and extremes of the columns of a block of rows, to check whether a row that calls itself a total is one. */
export interface TotalCheck {
  readonly add: (column: number, value: number) => void;
  /** Do at least half of these numbers equal the sum, mean, least or most of the rows since the last total, or of all? */
  readonly fits: (numbers: readonly (readonly [column: number, value: number])[]) => boolean;
  /** A total ends a block. */
  readonly endBlock: () => void;
}

export function totalCheck(): TotalCheck {
  let block = new Map<number, Running>();
  const whole = new Map<number, Running>();
  const note = (columns: Map<number, Running>, column: number, value: number): void => {
    const running = columns.get(column);
    if (!running) {
      columns.set(column, { n: 1, sum: value, low: value, high: value });
      return;
    }
    running.n++;
    running.sum += value;
    if (value < running.low) running.low = value;
    if (value > running.high) running.high = value;
  };
  const equals = (running: Running | undefined, value: number): boolean => {
    if (!running) return false;
    // Totals are often rounded: half a unit of the third digit is forgiven.
    const near = (a: number): boolean => Math.abs(a - value) <= Math.max(Math.abs(a), Math.abs(value)) * 0.005;
    return near(running.sum) || near(running.sum / running.n) || near(running.low) || near(running.high);
  };
  return {
    add(column, value) {
      note(block, column, value);
      note(whole, column, value);
    },
    fits(numbers) {
      if (numbers.length === 0) return whole.size > 0;
      const fitting = numbers.filter(([column, value]) => equals(block.get(column), value) || equals(whole.get(column), value));
      return fitting.length >= numbers.length / 2;
    },
    endBlock() {
      block = new Map();
    },
  };
}

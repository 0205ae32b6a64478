import { HEADING, wordsOf } from './headingWords';

type Rows = readonly (readonly string[])[];

/** What the proposal is made from. */
export interface NameSearch {
  /** Rows of data; some thousands are enough. */
  readonly rows: Rows;
  readonly headings: readonly string[];
  readonly timeColumns: readonly number[];
  readonly valueColumns: readonly number[];
  /** Columns of words that may name series. */
  readonly textColumns: readonly number[];
  /** Columns of whole numbers that may name series where words do not suffice (codes, ages). */
  readonly codeColumns: readonly number[];
}

export interface FoundNames {
  readonly nameColumns: readonly number[];
  readonly carriedDown: readonly number[];
  /** Why the rows may be no series at all but events: a person must say. */
  readonly doubt: string | null;
}

/**
 * Share of rows that may still collide: a corrupt row or a corrected value must not hide what names the
 * series.
 */
const FORGIVEN_SHARE = 0.03;

/** With fewer rows per series on average, the rows are events rather than samples. */
const MIN_ROWS_A_SERIES = 2;

/**
 * Proposes the columns that name the series: those that, together with the time, make rows unique. Any heading in any
 * language will do; a heading that is known to name things decides where the rows alone do not.
 */
export function findNames({
  rows,
  headings,
  timeColumns,
  valueColumns,
  textColumns,
  codeColumns,
}: NameSearch): FoundNames {
  const carried = textColumns.filter((i) => isWrittenOnceAGroup(rows, i));
  const filled = carryDown(rows, carried);
  const unique = distinctRows(filled);
  const clashes = (columns: readonly number[]): number =>
    unique.length -
    new Set(unique.map((row) => [...timeColumns, ...columns].map((i) => row[i] ?? '').join('\u001f'))).size;
  const seriesOf = (columns: readonly number[]): number =>
    new Set(unique.map((row) => columns.map((i) => row[i] ?? '').join('\u001f'))).size;
  const strong = (i: number): boolean => HEADING.name.test(wordsOf(headings[i] ?? ''));
  const named = (i: number): boolean => strong(i) || HEADING.maybeName.test(wordsOf(headings[i] ?? ''));
  const result = (nameColumns: readonly number[], doubt: FoundNames['doubt'] = null): FoundNames => ({
    doubt,
    nameColumns: [...nameColumns].sort((a, b) => a - b),
    carriedDown: carried.filter((i) => nameColumns.includes(i)),
  });
  const rowsEach = (columns: readonly number[]): number => unique.length / Math.max(1, seriesOf(columns));
  const usable = textColumns.filter((i) => !HEADING.unit.test(wordsOf(headings[i] ?? '')));

  if (clashes([]) === 0) {
    const known = usable.filter(
      (i) =>
        (valueColumns.length === 1 ? named(i) : strong(i)) &&
        !HEADING.remark.test(wordsOf(headings[i])) &&
        (rowsEach([i]) >= MIN_ROWS_A_SERIES || rows.length <= 3),
    );
    if (known.length > 0) return result(known);
    const apart = usable.filter(
      (i) =>
        valueColumns.length === 1 &&
        !HEADING.remark.test(wordsOf(headings[i] ?? '')) &&
        standApart(unique, i, valueColumns[0]),
    );
    return result(apart.slice(0, 1), apart.length > 0 ? null : eventDoubt());
  }

  const add = (chosen: readonly number[], among: readonly number[]): number[] => {
    const taken = [...chosen];
    for (;;) {
      const now = clashes(taken);
      if (now === 0) return taken;
      const best = among
        .filter((i) => !taken.includes(i))
        .map((i) => ({ i, left: clashes([...taken, i]), series: seriesOf([...taken, i]) }))
        .filter(({ left }) => left <= now * 0.8)
        .sort(
          (a, b) =>
            a.left - b.left || Number(named(b.i)) - Number(named(a.i)) || a.series - b.series || a.i - b.i,
        )[0];
      if (!best) return taken;
      taken.push(best.i);
    }
  };
  const isName = (columns: readonly number[]): boolean =>
    columns.length > 0 &&
    clashes(columns) <= unique.length * FORGIVEN_SHARE &&
    rowsEach(columns) >= MIN_ROWS_A_SERIES;
  const words = add([], usable);
  if (isName(words)) return result(withoutNeedless(words, clashes));
  // Columns that come close to a name for every row are descriptions of events.
  const few = usable.filter((i) => rowsEach([i]) >= 4);
  const fewWords = add([], few);
  if (isName(fewWords)) return result(fewWords);
  const codes = add(
    fewWords,
    codeColumns.filter((i) => rowsEach([i]) >= 4),
  );
  if (isName(codes)) return result(codes);
  const known = few.filter(named);
  if (known.length > 0 && rowsEach(known) >= MIN_ROWS_A_SERIES) return result(known);
  // The closest fit; a question is asked about the values that still collide.
  let nearest = fewWords.filter((i) => clashes([i]) <= clashes([]) / 2);
  while (nearest.length > 0 && rowsEach(nearest) < 2 * MIN_ROWS_A_SERIES) nearest = nearest.slice(0, -1);
  return result(nearest);

  /** Rows that each have another name, or lie at another place, are things or events rather than samples. */
  function eventDoubt(): string | null {
    if (rows.length <= 3) return null;
    const own = usable.find((i) => named(i) && seriesOf([i]) === unique.length);
    if (own !== undefined) return `Every row has another name in column “${headings[own]}”.`;
    const places = valueColumns.filter((i) => HEADING.position.test(wordsOf(headings[i] ?? '')));
    return places.length >= 2 && seriesOf(places) > unique.length / 2
      ? 'Nearly every row lies at another place.'
      : null;
  }
}

/** Drops columns that were added early and are no longer needed. */
function withoutNeedless(
  columns: readonly number[],
  clashes: (columns: readonly number[]) => number,
): number[] {
  let kept = [...columns];
  for (const each of columns) {
    const rest = kept.filter((i) => i !== each);
    if (rest.length > 0 && clashes(rest) <= clashes(columns)) kept = rest;
  }
  return kept;
}

/** Names written in the first row of a group only: the first row has one, and many of the others are blank. */
function isWrittenOnceAGroup(rows: Rows, column: number): boolean {
  if (rows.length < 2 || (rows[0][column] ?? '').trim() === '') return false;
  const blank = rows.filter((row) => (row[column] ?? '').trim() === '').length;
  return blank >= rows.length * 0.3;
}

/** Rows in which blank cells of some columns repeat the one above. */
export function carryDown(rows: Rows, columns: readonly number[]): Rows {
  if (columns.length === 0) return rows;
  const last = new Map<number, string>();
  return rows.map((row) => {
    const copy = [...row];
    for (const i of columns) {
      if ((copy[i] ?? '').trim() === '') copy[i] = last.get(i) ?? '';
      else last.set(i, copy[i]);
    }
    return copy;
  });
}

function distinctRows(rows: Rows): Rows {
  return [...new Map(rows.map((row) => [row.join('\u001f'), row])).values()];
}

/** Whether the groups of a column have clearly different values, so that it must name different things. */
function standApart(rows: Rows, column: number, value: number): boolean {
  const groups = new Map<string, number[]>();
  const all: number[] = [];
  for (const row of rows) {
    const v = Number((row[value] ?? '').replace(',', '.'));
    if (!Number.isFinite(v) || (row[value] ?? '').trim() === '') continue;
    const name = (row[column] ?? '').trim();
    if (name === '') return false;
    const group = groups.get(name) ?? [];
    groups.set(name, group);
    group.push(v);
    all.push(v);
  }
  if (groups.size < 2 || groups.size > 50 || all.length < groups.size * 4) return false;
  const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length;
  const middle = mean(all);
  const total = all.reduce((sum, v) => sum + (v - middle) ** 2, 0);
  const between = [...groups.values()].reduce(
    (sum, group) => sum + group.length * (mean(group) - middle) ** 2,
    0,
  );
  // Correlation ratio (eta squared): the share of the spread that the grouping explains.
  return total > 0 && between / total >= 0.6;
}

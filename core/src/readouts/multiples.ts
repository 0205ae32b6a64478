import type { BaseReadout } from '../board/choices';
import type { GroupBy, QueryAnswer } from '../domain/query';
import { scopeOfGroup, type NamedGroup } from '../scope/groupScope';
import { nameKey } from '../text/sameName';
import { groupNames } from './readoutValues';
import {
  isProblem,
  type Problem,
  type ReadData,
  type ReadingAnswers,
  type ReadingRequest,
  type ReadoutInputs,
} from './readoutData';
import type { ReadoutFormOf } from './readoutForm';
import { gridOf, stackOf } from './scene/grid';
import { TEXT, wrapped, written } from './scene/words';
import type { Table, TableColumn } from './table';

/** One small copy of a readout: that of one group. */
export interface Copy<Data extends ReadData = ReadData> {
  readonly key: string;
  /** "Quayside". */
  readonly name: string;
  /** The readout, narrowed to the group where a scope says it. */
  readonly readout: BaseReadout;
  readonly data: Data;
}

/** A readout drawn once for each group, all on one scale. */
export interface MultiplesData<Data extends ReadData = ReadData> extends ReadData {
  readonly copies: readonly Copy<Data>[];
  /** Groups of which nothing can be drawn, each with the reason. */
  readonly leftOut: readonly string[];
  /** How many more groups there are than are drawn. */
  readonly beyond: number;
}

/** Most copies that are drawn. */
export const MOST_COPIES = 48;
/** Width from which two copies stand side by side, px for each of the 12 columns that one takes on a wide sheet. */
const LEAST_COLUMN = 50;

/** Whether the data is that of small copies. */
export const isMultiples = (data: ReadData): data is MultiplesData => 'copies' in data;

/** Narrowest a copy of a form may be, px. */
export const leastWidth = ({ columns }: { readonly columns: { readonly many: number } }): number =>
  columns.many * LEAST_COLUMN;

/**
 * A form drawn once for each group of another grouping, such as a trend of dryers for each plant. It asks what the form
 * asks, with the grouping around it, and gives each copy its part of the answers, so that every number is made as without
 * copies.
 */
export function multiplesOf<Data extends ReadData>(
  form: ReadoutFormOf<object, Data>,
): ReadoutFormOf<object, MultiplesData<Data>> {
  const partsOf = (inputs: ReadoutInputs, first: ReadingAnswers): CopyInputs[] =>
    groupsOf(inputs.readout, first).map((group) => ({
      group,
      inputs: narrowed(inputs, group),
      first: first.map((answer) => answerOf(answer, group.name)),
    }));
  /** What each copy asks further, after what it was told. */
  const furtherOf = ({ inputs, first }: CopyInputs): readonly ReadingRequest[] =>
    first.some((answer) => answer !== undefined) ? form.further(inputs, first) : [];
  return {
    ...form,
    requests: (inputs) => {
      const asks = form.requests(inputs);
      return asks && asks.map((ask) => within(ask, inputs.readout.multiplesBy!));
    },
    further: (inputs, first) => partsOf(inputs, first).flatMap(furtherOf),
    facts: (inputs, answers) => {
      const groups = groupsOf(inputs.readout, answers);
      const { assetIds = null } = inputs.readout.scope ?? {};
      return [
        ...new Set([
          ...form.facts(inputs, []),
          ...groups.flatMap(({ name }) =>
            form.facts(
              inputs,
              answers.map((answer) => answerOf(answer, name)),
            ),
          ),
          // To tell which of the scope's assets a copy has.
          ...(assetIds ? [...assetIds, ...groups.flatMap(({ assetId }) => assetId ?? [])] : []),
        ]),
      ];
    },
    data: (inputs, answers) => {
      // The first answers are those with groups around them; what was asked further follows them.
      const count = form.requests(inputs)?.length ?? 0;
      const parts = partsOf(inputs, answers.slice(0, count));
      const names = groupNames(
        parts.map(({ group }) => group),
        inputs.readout.multiplesBy!,
      );
      let next = count;
      const made = parts.slice(0, MOST_COPIES).map((part, i) => {
        const asked = furtherOf(part).length;
        const later = answers.slice(next, next + asked);
        next += asked;
        const data = form.data(part.inputs, [...part.first, ...later]);
        return { key: part.group.name, name: names[i], readout: part.inputs.readout, data };
      });
      const drawn = made.filter((copy): copy is Copy<Data> => !isProblem(copy.data));
      const [first] = drawn;
      if (!first) return (made.find(({ data }) => isProblem(data))?.data as Problem) ?? form.data(inputs, []);
      const datas = drawn.map(({ data }) => data);
      const alike = form.alike && drawn.length > 1 ? form.alike(datas) : datas;
      const { window, zone, now } = first.data;
      return {
        copies: drawn.map((copy, i) => ({ ...copy, data: alike[i] })),
        leftOut: made.flatMap(({ name, data }) =>
          isProblem(data) ? [`${name} (${data.problem.title.toLowerCase()})`] : [],
        ),
        beyond: Math.max(0, parts.length - MOST_COPIES),
        window,
        zone,
        now,
        decimals: Math.max(...datas.map(({ decimals }) => decimals)),
      };
    },
    alike: undefined,
    along: () => null,
    scene: (data, frame) => {
      const least = leastWidth(form);
      const columns = Math.max(1, Math.min(data.copies.length, Math.floor(frame.width / least)));
      const width = frame.width / columns - (columns > 1 ? BETWEEN : 0);
      const cells = data.copies.map(({ key, name, data: own }) => {
        const lines = wrapped(name, TEXT.strong, width);
        const head = {
          width,
          height: lines.length * TEXT.strong.lineHeight + 4,
          marks: [written(lines, { key: 'name', x: 0, y: 0, style: TEXT.strong, ink: 'ink' })],
          hits: [],
          spoken: name,
        };
        const scene = form.scene(own, { ...frame, width, height: null });
        return {
          key,
          scene: {
            ...stackOf(
              [
                { key: 'head', scene: head },
                { key: 'own', scene },
              ],
              width,
            ),
            width,
          },
        };
      });
      const grid = gridOf(cells, frame.width, frame.width / columns);
      const words = copiesWords(data);
      if (words === '') return grid;
      const lines = wrapped(words, TEXT.caption, frame.width);
      return {
        ...grid,
        height: grid.height + 6 + lines.length * TEXT.caption.lineHeight,
        marks: [
          ...grid.marks,
          written(lines, { key: 'left out', x: 0, y: grid.height + 6, style: TEXT.caption, ink: 'ink2' }),
        ],
      };
    },
    table: (data) =>
      tableOfCopies(data.copies.map((copy) => ({ name: copy.name, table: form.table(copy.data) }))),
  };
}

/** Room between copies side by side, px. */
export const BETWEEN = 16;

/** What is not drawn. */
export const copiesWords = ({ leftOut, beyond }: Pick<MultiplesData, 'leftOut' | 'beyond'>): string =>
  [
    leftOut.length > 0 ? `Not drawn: ${leftOut.join(', ')}.` : '',
    beyond > 0
      ? `${beyond} more ${beyond === 1 ? 'group is' : 'groups are'} not drawn; narrow the scope.`
      : '',
  ]
    .filter((each) => each !== '')
    .join(' ');

interface CopyInputs {
  readonly group: NamedGroup;
  readonly inputs: ReadoutInputs;
  readonly first: ReadingAnswers;
}

/** The same request with a grouping around its own. */
function within(ask: ReadingRequest, by: GroupBy): ReadingRequest {
  if (ask.kind !== 'query') return ask;
  return { ...ask, ask: { ...ask.ask, within: [by, ...ask.ask.within] } };
}

/** The outermost groups of the answers, in order of first appearance. */
function groupsOf({ keepBlanks }: BaseReadout, answers: ReadingAnswers): readonly NamedGroup[] {
  const found = new Map<string, NamedGroup>();
  for (const answer of answers) {
    if (!isQueryAnswer(answer)) continue;
    for (const { path = [], pathAssetIds = [] } of answer.groups) {
      const [name] = path;
      if (name === undefined || (name === '' && !keepBlanks)) continue;
      const key = nameKey(name);
      if (!found.has(key)) found.set(key, { name, assetId: pathAssetIds[0] ?? null });
    }
  }
  return [...found.values()];
}

const isQueryAnswer = (answer: ReadingAnswers[number]): answer is QueryAnswer =>
  answer !== undefined && 'groups' in answer;

/** The part of an answer that is about one outer group, as if only it had been asked about; none = no answer. */
function answerOf(answer: ReadingAnswers[number], name: string): ReadingAnswers[number] {
  if (!isQueryAnswer(answer)) return answer;
  const key = nameKey(name);
  const groups = answer.groups
    .filter(({ path = [] }) => path.length > 0 && nameKey(path[0]) === key)
    .map(({ path, pathAssetIds, ...group }) => ({
      ...group,
      ...(path && path.length > 1 && { path: path.slice(1), pathAssetIds: pathAssetIds?.slice(1) }),
    }));
  return groups.length === 0 ? undefined : { ...answer, groups };
}

/** The inputs of a copy: its scope is the group's, where a scope says it. */
function narrowed(inputs: ReadoutInputs, group: NamedGroup): ReadoutInputs {
  const { readout, facts } = inputs;
  const own = scopeOfGroup(readout.multiplesBy!, group, readout.scope, (id) => facts.get(id)?.path);
  return { ...inputs, readout: { ...readout, multiplesBy: null, scope: own ?? readout.scope } };
}

/** The rows of all copies one under another, with the name of the copy first. Columns of the same name are one. */
function tableOfCopies(all: readonly { readonly name: string; readonly table: Table }[]): Table {
  const columns = new Map<string, TableColumn>();
  const keyOf = ({ name, unit }: TableColumn): string => `${name}\u0000${unit}`;
  for (const { table } of all) for (const column of table.columns) columns.set(keyOf(column), column);
  const keys = [...columns.keys()];
  return {
    columns: [{ name: 'Copy', unit: '' }, ...columns.values()],
    rows: all.flatMap(({ name, table }) => {
      const at = keys.map((key) => table.columns.findIndex((column) => keyOf(column) === key));
      return table.rows.map((row) => [name, ...at.map((i) => (i < 0 ? null : row[i]))]);
    }),
  };
}

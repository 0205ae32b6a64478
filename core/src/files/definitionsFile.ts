import * as yup from 'yup';
import type { RuleInput } from '../api/alarms';
import {
  indicatorSchema,
  periodTarget,
  type IndicatorDefinition,
  type PeriodTarget,
} from '../indicators/definition';
import { alarmRuleSchema } from '../schemas/alarmRule';
import { list, shape, text } from '../schemas/shape';
import { nameKey } from '../text/sameName';
import { checkedPart, parseFile } from './jsonFile';
import {
  metricsInFile,
  nameMetrics,
  placesInFile,
  type FileMetric,
  type FoundHere,
  type NamedPlaces,
} from './namedThings';

/* Rules and indicators as a file (docs/definitions-file.md): out, and in again on this server or another. */

const DEFINITIONS_FILE_KIND = 'vivid-beacon-definitions';
const MOST = 500;

/** A person named in a file, by name: accounts differ from server to server. */
export interface FilePerson {
  readonly id: string;
  readonly name: string;
}

/** An indicator in a file, by the id that rules of the file name it by. */
export interface FiledIndicator {
  readonly id: string;
  readonly definition: IndicatorDefinition;
  /** Targets entered by period. */
  readonly targets: readonly PeriodTarget[];
}

/** Rules and indicators as a file. Ids are those of the server that wrote it; the lists describe them. */
export interface DefinitionsFile extends NamedPlaces {
  readonly kind: typeof DEFINITIONS_FILE_KIND;
  readonly definitions: readonly FiledIndicator[];
  readonly rules: readonly RuleInput[];
  readonly metrics: readonly FileMetric[];
  readonly people: readonly FilePerson[];
}

/** What rules and indicators name. */
const KINDS = ['metrics', 'assets', 'indicators', 'boards', 'people'] as const;
type Kind = (typeof KINDS)[number];

/** How ids become others. */
interface References {
  /** Without it there is no definition. */
  readonly need: (kind: Kind, id: string) => string;
  /** Goes where it is not here. */
  readonly may: (kind: Kind, id: string) => string | null;
}

type Measure = IndicatorDefinition['measure'];

function ruleWith(rule: RuleInput, { need, may }: References): RuleInput {
  const people = (ids: readonly string[]): string[] => ids.flatMap((id) => may('people', id) ?? []);
  type Stage = Pick<RuleInput, 'told' | 'escalation'>;
  const stage = ({ told, escalation }: Stage): Stage => {
    const to = escalation ? people(escalation.to) : [];
    return { told: people(told), escalation: escalation && to.length > 0 ? { ...escalation, to } : null };
  };
  return {
    ...rule,
    ...stage(rule),
    metricId: need('metrics', rule.metricId),
    under: rule.under && need('assets', rule.under),
    over: rule.over && {
      ...rule.over,
      indicatorId: rule.over.indicatorId && need('indicators', rule.over.indicatorId),
    },
    caution: rule.caution && { ...rule.caution, ...stage(rule.caution) },
    suppress: rule.suppress && { ...rule.suppress, metricId: need('metrics', rule.suppress.metricId) },
    replaces: null,
  };
}

function indicatorWith(definition: IndicatorDefinition, { need, may }: References): IndicatorDefinition {
  const measure = (each: Measure): Measure => ({
    ...each,
    metricId: need('metrics', each.metricId),
    per: each.per && { ...each.per, metricId: need('metrics', each.per.metricId) },
  });
  const source = <Source extends object>(each: Source): Source =>
    'measure' in each ? { ...each, measure: measure(each.measure as Measure) } : each;
  return {
    ...definition,
    assetId: need('assets', definition.assetId),
    ownerId: definition.ownerId && may('people', definition.ownerId),
    boardId: definition.boardId && may('boards', definition.boardId),
    measure: measure(definition.measure),
    target: source(definition.target),
    reference: source(definition.reference),
  };
}

type Definitions = Pick<DefinitionsFile, 'definitions' | 'rules'>;

/** The ids that rules and indicators name, each once, by kind. An indicator of the file itself is not looked up. */
export function namedIn({ definitions, rules }: Definitions): Readonly<Record<Kind, readonly string[]>> {
  const ids = Object.fromEntries(KINDS.map((kind) => [kind, new Set<string>()])) as Record<Kind, Set<string>>;
  const note = (kind: Kind, id: string): string => {
    ids[kind].add(id);
    return id;
  };
  const references: References = { need: note, may: note };
  rules.forEach((rule) => ruleWith(rule, references));
  definitions.forEach(({ definition }) => indicatorWith(definition, references));
  definitions.forEach(({ id }) => ids.indicators.delete(id));
  return Object.fromEntries(KINDS.map((kind) => [kind, [...ids[kind]]])) as never;
}

/** Writes rules and indicators as the text of a file. */
export function writeDefinitionsFile(
  content: Definitions,
  named: NamedPlaces & {
    readonly metrics: Parameters<typeof nameMetrics>[1];
    readonly people: readonly FilePerson[];
  },
): string {
  const { metrics, people, assets, indicators, boards } = named;
  const file: DefinitionsFile = {
    kind: DEFINITIONS_FILE_KIND,
    definitions: content.definitions,
    rules: content.rules.map((rule) => ({ ...rule, replaces: null })),
    metrics: nameMetrics(namedIn(content).metrics, metrics),
    people: people.map(({ id, name }) => ({ id, name })),
    assets,
    indicators,
    boards,
  };
  return `${JSON.stringify(file, null, 2)}\n`;
}

const filedIndicator = shape({
  id: text(),
  definition: indicatorSchema.required(),
  targets: list(periodTarget),
});
const peopleInFile = yup
  .array(
    yup.object({ id: yup.string().max(20).required(), name: yup.string().max(200).required() }).required(),
  )
  .max(1200)
  .default([]);
const items = yup.array(yup.mixed().nullable().defined()).max(MOST).default([]);

/** A line of the file that cannot be read: where, and why. */
export interface RefusedDefinition {
  readonly kind: 'rule' | 'indicator';
  readonly name: string;
  readonly words: string;
}

/**
 * Reads the text of a file of rules and indicators. One that is wrong is refused by itself; the others are read.
 *
 * @throws {BeaconError} BAD_INPUT for a file that is none, or whose lists are not lists
 */
export function readDefinitionsFile(written: string): {
  readonly file: DefinitionsFile;
  readonly refused: readonly RefusedDefinition[];
} {
  const file = parseFile<DefinitionsFile>(written, DEFINITIONS_FILE_KIND, 'a file of rules and indicators');
  const refused: RefusedDefinition[] = [];
  const readEach = <Item>(
    kind: RefusedDefinition['kind'],
    member: 'definitions' | 'rules',
    schema: yup.Schema<Item>,
  ): Item[] =>
    checkedPart(items, file[member], member).flatMap((each, i) => {
      try {
        return [checkedPart(schema, each, `${member}[${i}]`)];
      } catch (error) {
        refused.push({ kind, name: nameOf(each) ?? `${member}[${i}]`, words: (error as Error).message });
        return [];
      }
    });
  const definitions = readEach('indicator', 'definitions', filedIndicator) as unknown as FiledIndicator[];
  const rules = readEach('rule', 'rules', alarmRuleSchema) as unknown as RuleInput[];
  const metrics = checkedPart(metricsInFile, file.metrics, 'metrics');
  const people = checkedPart(peopleInFile, file.people, 'people');
  const places = checkedPart(placesInFile, file, 'file');
  return { file: { kind: DEFINITIONS_FILE_KIND, definitions, rules, metrics, people, ...places }, refused };
}

/** The name of what may be a rule or an indicator. */
function nameOf(item: unknown): string | null {
  const { name, definition } = (item ?? {}) as { name?: unknown; definition?: { name?: unknown } };
  const found = name ?? definition?.name;
  return typeof found === 'string' && found.trim() !== '' ? found.slice(0, 120) : null;
}

/** What is here of what a file names. */
export interface DefinitionsHere extends FoundHere {
  readonly people: ReadonlyMap<string, string>;
}

/** One rule or indicator of a file as it can be made here. */
export interface TakenDefinition<Input> {
  readonly name: string;
  /** null = it cannot be made here. */
  readonly input: Input | null;
  /** Why it cannot, or what is left out of it. */
  readonly told: readonly string[];
}

class NotHere extends Error {}

/** Rewrites one definition with what is here. */
function take<Input>(
  name: string,
  file: DefinitionsFile,
  here: DefinitionsHere,
  rewrite: (references: References) => Input,
): TakenDefinition<Input> {
  const told = new Set<string>();
  const references: References = {
    need: (kind, id) => {
      const found = here[kind].get(id);
      if (found) return found;
      throw new NotHere(`${wordsOf(file, kind, id)} is not here.`);
    },
    may: (kind, id) => {
      const found = here[kind].get(id) ?? null;
      if (found === null) told.add(`${wordsOf(file, kind, id)} is not here and is left out.`);
      return found;
    },
  };
  try {
    const input = rewrite(references);
    return { name, input, told: [...told] };
  } catch (error) {
    if (error instanceof NotHere) return { name, input: null, told: [error.message] };
    throw error;
  }
}

const UNDESCRIBED: Readonly<Record<Kind, string>> = {
  metrics: 'A metric',
  assets: 'An asset',
  indicators: 'An indicator',
  boards: 'A board',
  people: 'A person',
};

/** What a file calls what it names. */
function wordsOf(file: DefinitionsFile, kind: Kind, id: string): string {
  const own = kind === 'indicators' && file.definitions.find((each) => each.id === id);
  if (own) return `The indicator ${own.definition.name}`;
  const found = (file[kind] as readonly { readonly id: string }[]).find((each) => each.id === id);
  if (!found) return `${UNDESCRIBED[kind]} that the file does not describe`;
  const { name, title, asset, place } = found as Partial<
    Record<'name' | 'title' | 'asset' | 'place', string>
  >;
  return [name ?? title, asset ?? place].filter(Boolean).join(', ');
}

/** The indicators of a file with what is here. */
export function takeIndicators(
  file: DefinitionsFile,
  here: DefinitionsHere,
): (TakenDefinition<IndicatorDefinition> & Pick<FiledIndicator, 'id' | 'targets'>)[] {
  return file.definitions.map(({ id, definition, targets }) => ({
    id,
    targets,
    ...take(definition.name, file, here, (references) => indicatorWith(definition, references)),
  }));
}

/** The rules of a file with what is here. @param here with the indicators of the file that were made before. */
export function takeRules(file: DefinitionsFile, here: DefinitionsHere): TakenDefinition<RuleInput>[] {
  return file.rules.map((rule) => take(rule.name, file, here, (references) => ruleWith(rule, references)));
}

/** Finds the people of a file again, by their names. */
export function matchPeople(
  file: Pick<DefinitionsFile, 'people'>,
  here: readonly FilePerson[],
): Map<string, string> {
  return new Map(
    file.people.flatMap(({ id, name }) => {
      const same = here.filter((each) => nameKey(each.name) === nameKey(name));
      return same.length === 1 ? [[id, same[0].id] as const] : [];
    }),
  );
}

import type { DefinitionsFile, DefinitionsHere } from '@vivid-beacon/core';
import {
  readDefinitionsFile,
  takeIndicators,
  takeRules,
  type RefusedDefinition,
  type TakenDefinition,
} from '@vivid-beacon/core/src/boards';
import { findForDefinitions, hasSameRule, makeIndicator, makeRule, sameIndicator } from '../../api/files';

/* A file of rules and indicators, line by line: what can be made here, what is here already, what cannot. */

/** ready = can be made; repeated = one like it is here; refused = cannot be made; made = is made. */
export type LineState = 'ready' | 'repeated' | 'refused' | 'made';

export interface DefinitionLine {
  readonly kind: 'rule' | 'indicator';
  readonly name: string;
  readonly state: LineState;
  /** Why it is refused, or what is left out of it. */
  readonly told: readonly string[];
}

export interface ReadDefinitions {
  readonly file: DefinitionsFile;
  readonly here: DefinitionsHere;
  /** Ids here of indicators of the file that are here already, by their ids there. */
  readonly repeated: ReadonlyMap<string, string>;
  /** Indicators first, then rules, then what could not be read. */
  readonly lines: readonly DefinitionLine[];
}

/** Indicators of the file stand for themselves until they are made. */
const withOwn = (
  file: DefinitionsFile,
  here: DefinitionsHere,
  made: ReadonlyMap<string, string>,
): DefinitionsHere => ({
  ...here,
  indicators: new Map([...here.indicators, ...file.definitions.map(({ id }) => [id, id] as const), ...made]),
});

/** @param isHere whether one like it is here, so that nothing is left out of it either. */
function lineOf(
  kind: DefinitionLine['kind'],
  { name, input, told }: TakenDefinition<unknown>,
  isHere: boolean,
): DefinitionLine {
  if (isHere) return { kind, name, state: 'repeated', told: [] };
  return { kind, name, state: input === null ? 'refused' : 'ready', told };
}

const asRefused = ({ kind, name, words }: RefusedDefinition): DefinitionLine => ({
  kind,
  name,
  state: 'refused',
  told: [words],
});

/** Reads a file and says of each of its definitions what would become of it. @throws {Error} for a file that is none */
export async function readDefinitions(text: string): Promise<ReadDefinitions> {
  const { file, refused } = readDefinitionsFile(text);
  const here = await findForDefinitions(file);
  const repeated = new Map<string, string>();
  const lines: DefinitionLine[] = [];
  for (const { id, name, input, told } of takeIndicators(file, here)) {
    const same = input && (await sameIndicator(input));
    if (same !== null) repeated.set(id, same);
    lines.push(lineOf('indicator', { name, input, told }, same !== null));
  }
  for (const { name, input, told } of takeRules(file, withOwn(file, here, repeated))) {
    const same = input !== null && (await hasSameRule(input));
    lines.push(lineOf('rule', { name, input, told }, same));
  }
  return { file, here, repeated, lines: [...lines, ...refused.map(asRefused)] };
}

/**
 * Makes what is ready, indicators before the rules that judge them. What the server refuses is told in its words; the others
 * are made.
 *
 * @param onLine after each line.
 */
export async function makeDefinitions(
  { file, here, repeated, lines }: ReadDefinitions,
  onLine: (lines: readonly DefinitionLine[]) => void,
): Promise<void> {
  const done = [...lines];
  const ids = new Map(repeated);
  const make = async (i: number, work: () => Promise<unknown>): Promise<void> => {
    try {
      await work();
      done[i] = { ...done[i], state: 'made' };
    } catch (error) {
      done[i] = { ...done[i], state: 'refused', told: [(error as Error).message] };
    }
    onLine([...done]);
  };
  const indicators = takeIndicators(file, here);
  for (const [i, { id, input, targets }] of indicators.entries()) {
    if (lines[i].state === 'ready') {
      await make(i, async () => ids.set(id, await makeIndicator(input!, targets)));
    }
  }
  // An indicator that was refused is not there for its rules either.
  const known: DefinitionsHere = { ...here, indicators: new Map([...here.indicators, ...ids]) };
  for (const [n, { input, told }] of takeRules(file, known).entries()) {
    const i = indicators.length + n;
    if (lines[i].state !== 'ready') continue;
    await make(i, async () => {
      if (!input) throw new Error(told[0]);
      await makeRule(input);
    });
  }
}

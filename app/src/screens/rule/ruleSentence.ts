import {
  backWords,
  canHaveStages,
  hoursWords,
  LEVEL_WORDS,
  overWords,
  silentAfterMs,
  stateTestWords,
  testWords,
  type Asset,
  type Metric,
  type Person,
  type RuleInput,
} from '@vivid-beacon/core';
import type { SentencePart } from '../../components/Sentence';
import { delayWords } from '../ruleWords';
import type { JudgedByRule } from './useJudged';

export type RuleSlot =
  'level' | 'metric' | 'over' | 'caution' | 'test' | 'delay' | 'back' | 'hours' | 'suppress' | 'call';

export interface RuleNames {
  readonly metrics: ReadonlyMap<string, Metric>;
  readonly assets: ReadonlyMap<string, Asset>;
  readonly people: readonly Person[];
  /** What the rule judges. */
  readonly judged: JudgedByRule | null;
}

const words = (text: string): SentencePart => ({ kind: 'words', text });
const slot = (key: RuleSlot, text: string): SentencePart => ({ kind: 'slot', key, text });

/** A rule as a sentence of which every part can be tapped. */
export function ruleSentence(
  rule: RuleInput | null,
  { metrics, assets, people, judged }: RuleNames,
): SentencePart[] {
  const metric = metrics.get(rule?.metricId ?? '');
  if (!rule || !metric || !judged) return [words('Raise an alarm when'), slot('metric', 'a metric')];
  const { test, suppress, over } = rule;
  const { unit, decimals, name: what } = judged;
  const under = assets.get(rule.under ?? '');
  const back = backWords(test, unit, decimals);
  const state = metrics.get(suppress?.metricId ?? '');
  const timed = silentAfterMs(test) === null;
  return [
    words('Raise a'),
    slot('level', `${rule.priority}-priority ${LEVEL_WORDS[rule.level]}`),
    words('when'),
    slot(
      'metric',
      under
        ? `${what} of each asset in ${under.name}${attributeWords(rule.attributes)}`
        : `${what}, ${metric.assetName}`,
    ),
    slot('over', over ? overWords(over) : 'in each sample'),
    words('is'),
    slot('test', testWords(test, unit, decimals)),
    ...(timed ? [words('for'), slot('delay', delayWords(rule.onDelayMs, over))] : []),
    ...(over?.indicatorId ? [] : [slot('hours', rule.hours ? hoursWords(rule.hours) : 'at any time')]),
    ...(suppress && state
      ? [
          words('but not while'),
          slot('suppress', `${state.name.toLowerCase()} is ${stateTestWords(suppress.code, suppress.is)}`),
        ]
      : [words('and'), slot('suppress', 'in any state')]),
    ...cautionWords(rule, judged),
    ...(back
      ? [
          words('. It ends when the value is'),
          slot('back', rule.offDelayMs > 0 ? `${back} for ${delayWords(rule.offDelayMs, over)}` : back),
        ]
      : []),
    words('. Notify'),
    slot('call', toldWords(rule.told, people)),
  ];
}

/** " with Caution above 195 °C"; nothing where a rule can have one stage only. */
function cautionWords({ caution, level, test }: RuleInput, { unit, decimals }: JudgedByRule): SentencePart[] {
  if (level !== 'breach' || !canHaveStages(test)) return [];
  const milder = caution && `${LEVEL_WORDS.caution} ${testWords(caution.test, unit, decimals)}`;
  return [words('with'), slot('caution', milder ?? 'no Caution before it')];
}

/** " with Maker Weld or Acre". */
function attributeWords(attributes: RuleInput['attributes']): string {
  const each = attributes.map(({ name, values }) => `${name} ${values.join(' or ')}`);
  return each.length === 0 ? '' : ` with ${each.join(' and ')}`;
}

function toldWords(told: readonly string[], people: readonly Person[]): string {
  const names = told.map((id) => people.find((person) => person.id === id)?.name ?? 'somebody');
  if (names.length === 0) return 'nobody';
  return names.length > 2 ? `${names[0]} and ${names.length - 1} more` : names.join(' and ');
}

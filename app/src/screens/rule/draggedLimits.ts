import { courseLimits, LEVEL_WORDS, type AlarmTest, type Level, type RuleInput } from '@vivid-beacon/core';

/** A limit on the course that can be dragged. */
export interface DraggedLimit {
  readonly name: string;
  readonly value: number;
  readonly level: Level;
  readonly move: (value: number) => void;
}

/** The limits of both stages of a rule on the course of what it judges. */
export function draggedLimits(
  { test, caution }: Pick<RuleInput, 'test' | 'caution'>,
  onTest: (test: AlarmTest) => void,
  onCaution: (caution: RuleInput['caution']) => void,
): DraggedLimit[] {
  const own = courseLimits(test).map(({ name, value, test: at }) => ({
    name,
    value,
    level: 'breach' as const,
    move: (next: number) => onTest(at(next)),
  }));
  if (!caution) return own;
  const milder = courseLimits(caution.test).map(({ name, value, test: at }) => ({
    name: `${LEVEL_WORDS.caution}: ${name}`,
    value,
    level: 'caution' as const,
    move: (next: number) => onCaution({ ...caution, test: at(next) }),
  }));
  return [...own, ...milder];
}

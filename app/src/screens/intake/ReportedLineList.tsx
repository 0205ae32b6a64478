import { useState } from 'react';
import { formatNumber } from '@vivid-beacon/core';
import { REPORTED_WORDS, type ReportedLine } from '@vivid-beacon/core/src/intakeFiles';
import { Button } from '../../components/Button';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';

const SHOWN_AT_FIRST = 5;
const SHOWN_MORE = 50;
const TITLES: Readonly<Record<ReportedLine['kind'], string>> = {
  refused: 'Refused',
  met: 'Colliding values',
  repeated: 'Repeated',
  leftOut: 'Left out',
  short: 'Short rows',
};

interface ReportedLineListProps {
  readonly kind: ReportedLine['kind'];
  readonly lines: readonly ReportedLine[];
  /** How many there are in all; only the first are at hand. */
  readonly total: number;
  readonly unit: string;
}

/** Lines of one kind with line, column, value and reason. */
export function ReportedLineList({ kind, lines, total, unit }: ReportedLineListProps) {
  const [shown, setShown] = useState(SHOWN_AT_FIRST);
  const own = lines.filter((each) => each.kind === kind);
  if (own.length === 0) return null;
  const most = Math.min(own.length, shown);
  const count = (n: number): string => formatNumber(n, 0);
  const word = unit.charAt(0).toUpperCase() + unit.slice(1);
  return (
    <Section title={TITLES[kind]} aside={total > most ? `${count(most)} of ${count(total)}` : count(total)}>
      {own.slice(0, shown).map(({ line, column, value, reason }, i) => (
        <Row
          key={`${line}-${column}-${i}`}
          title={`${word} ${line}: ${reason}`}
          second={[column, value && `“${value}”`].filter(Boolean).join(': ') || REPORTED_WORDS[kind]}
          last={i === most - 1}
        />
      ))}
      {own.length > shown && (
        <Button variant="quiet" label="Show more" onPress={() => setShown(shown + SHOWN_MORE)} />
      )}
    </Section>
  );
}

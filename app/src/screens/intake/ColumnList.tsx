import { useState } from 'react';
import { View } from 'react-native';
import { formatNumber } from '@vivid-beacon/core';
import { COLUMN_PART_WORDS, type FoundColumn } from '@vivid-beacon/core/src/intakeFiles';
import { Button } from '../../components/Button';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';

const SHOWN_AT_ONCE = 30;

interface ColumnListProps {
  readonly columns: readonly FoundColumn[];
  readonly onOpen: (column: number) => void;
}

/** Every column of the file with what it is, what stands in it and why; each can be given another part. */
export function ColumnList({ columns, onOpen }: ColumnListProps) {
  const [shown, setShown] = useState(SHOWN_AT_ONCE);
  const taken = columns.filter(({ part }) => part !== 'leftOut').length;
  return (
    <Section title="Columns" aside={`${taken} used, ${columns.length - taken} left out`}>
      {columns.slice(0, shown).map((column, i) => (
        <Row
          key={column.index}
          title={column.unit ? `${column.heading} (${column.unit})` : column.heading}
          second={factsOf(column)}
          right={
            <View>
              <Button
                variant="quiet"
                label={COLUMN_PART_WORDS[column.part]}
                name={`Column ${column.heading}: ${COLUMN_PART_WORDS[column.part]}. Change what it is for`}
                onPress={() => onOpen(column.index)}
              />
            </View>
          }
          last={i === Math.min(shown, columns.length) - 1}
        />
      ))}
      {columns.length > shown && (
        <Button
          variant="quiet"
          label={`Show ${Math.min(SHOWN_AT_ONCE, columns.length - shown)} more of ${columns.length - shown}`}
          onPress={() => setShown(shown + SHOWN_AT_ONCE)}
        />
      )}
    </Section>
  );
}

function factsOf({ example, note, numbers, words, blank, errors }: FoundColumn): string {
  const count = (n: number, one: string, many = `${one}s`): string | false =>
    n > 0 && `${formatNumber(n, 0)} ${n === 1 ? one : many}`;
  const cells = [
    count(numbers, 'number'),
    count(words, numbers > 0 ? 'other cell' : 'cell'),
    count(blank, 'blank', 'blank'),
    count(errors, 'error'),
  ].filter(Boolean);
  return [note, example && `“${example}”`, cells.join(', ')].filter(Boolean).join(' · ');
}

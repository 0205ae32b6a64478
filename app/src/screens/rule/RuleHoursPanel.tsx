import { useState } from 'react';
import type { HoursFilter } from '@vivid-beacon/core';
import { HoursPanel as RecurringHours } from '../../components/scope/HoursPanel';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

interface HoursPanelProps {
  readonly hours: HoursFilter | null;
  /** Of a rule over periods: only these hours count in a value. */
  readonly narrows: boolean;
  readonly onChange: (hours: HoursFilter | null) => void;
}

const OPTIONS = [
  { value: 'always', label: 'At any time' },
  { value: 'inside', label: 'In working hours' },
  { value: 'outside', label: 'Outside working hours' },
  { value: 'own', label: 'Own hours' },
] as const;

type Choice = (typeof OPTIONS)[number]['value'];

/** When a rule watches: always, by the working calendar of the plant, or in recurring hours of its own. */
export function RuleHoursPanel({ hours, narrows, onChange }: HoursPanelProps) {
  const palette = usePalette();
  const [own, setOwn] = useState(hours !== null && hours.kind !== 'working');
  const plain = hours === null ? 'always' : hours.kind === 'working' && (hours.inside ? 'inside' : 'outside');
  const chosen: Choice = own || !plain ? 'own' : plain;
  const choose = (value: Choice): void => {
    setOwn(value === 'own');
    if (value === 'always') onChange(null);
    if (value === 'inside' || value === 'outside') onChange({ kind: 'working', inside: value === 'inside' });
  };
  return (
    <>
      <WordRow
        name={narrows ? 'Which hours count' : 'When it is evaluated'}
        options={OPTIONS}
        chosen={chosen}
        onChoose={choose}
      />
      {chosen === 'own' && <RecurringHours hours={hours} onChange={onChange} />}
      <Words as="second" colour={palette.ink2}>
        {hours === null
          ? 'Around the clock.'
          : `By clock time and the plant's working calendar. ${narrows ? 'Only these hours count in the value of a period.' : 'When these hours end, an active alarm ends too.'}`}
      </Words>
    </>
  );
}

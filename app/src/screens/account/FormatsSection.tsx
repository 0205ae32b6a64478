import type { ComponentProps } from 'react';
import { View } from 'react-native';
import { formatMoment, formatNumber, formatsInUse, withFormats, type Formats } from '@vivid-beacon/core';
import { Section } from '../../components/Section';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';
import { DAYS } from '../../components/days';
import { deviceZone } from '../deviceZone';

const NUMBERS = [
  { value: '1,234.5', label: '1,234.5' },
  { value: '1.234,5', label: '1.234,5' },
  { value: '1 234,5', label: '1 234,5' },
] as const;
const DATES = [
  { value: 'dayMonth', label: '19 Nov' },
  { value: 'monthDay', label: 'Nov 19' },
  { value: 'yearMonthDay', label: '2026-11-19' },
] as const;
const CLOCKS = [
  { value: '24', label: '18:40' },
  { value: '12', label: '6:40 pm' },
] as const;
const FIRST = [1, 6, 7].map((day) => ({ value: String(day), label: DAYS[day - 1] }));
const WHOSE = [
  { value: 'device', label: 'as this device has them' },
  { value: 'own', label: 'your own' },
] as const;

interface FormatsSectionProps {
  /** null = as the device has them. */
  readonly formats: Formats | null;
  readonly onChoose: (formats: Formats | null) => void;
}

/** How numbers, dates and times are written. Files that go out are not touched by it. */
export function FormatsSection({ formats, onChoose }: FormatsSectionProps) {
  const palette = usePalette();
  const shown = formats ?? formatsInUse();
  const set = (part: Partial<Formats>): void => onChoose({ ...shown, ...part });
  const sample = withFormats(
    shown,
    () => `${formatMoment(Date.UTC(2026, 10, 19, 18, 40), deviceZone(), 0)}, ${formatNumber(-12345.6, 1)}`,
  );
  return (
    <Section title="Numbers, dates and times">
      <Words as="second" colour={palette.ink2}>
        {`Written as ${sample}. Files that go out keep one way for everybody.`}
      </Words>
      <WordRow
        name="Whose formats"
        options={WHOSE}
        chosen={formats === null ? 'device' : 'own'}
        onChoose={(whose) => onChoose(whose === 'device' ? null : shown)}
      />
      {formats !== null && (
        <>
          <Choice
            name="Numbers"
            options={NUMBERS}
            chosen={formats.numbers}
            onChoose={(numbers) => set({ numbers })}
          />
          <Choice
            name="Dates"
            options={DATES}
            chosen={formats.dateOrder}
            onChoose={(dateOrder) => set({ dateOrder })}
          />
          <Choice
            name="Times of day"
            options={CLOCKS}
            chosen={formats.clock}
            onChoose={(clock) => set({ clock })}
          />
          <Choice
            name="Weeks are listed from"
            options={FIRST}
            chosen={String(formats.firstWeekday)}
            onChoose={(day) => set({ firstWeekday: Number(day) })}
          />
        </>
      )}
    </Section>
  );
}

/** Words to choose from under what they are about. */
function Choice<T extends string>(choice: ComponentProps<typeof WordRow<T>>) {
  const palette = usePalette();
  return (
    <View>
      <Words as="second" colour={palette.ink2}>
        {choice.name}
      </Words>
      <WordRow {...choice} />
    </View>
  );
}

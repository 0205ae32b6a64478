import type { HoursFilter } from '@vivid-beacon/core';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

interface HoursPanelProps {
  readonly hours: HoursFilter | null;
  readonly onChange: (hours: HoursFilter | null) => void;
}

const OPTIONS = [
  { value: 'always', label: 'At any time' },
  { value: 'inside', label: 'In working hours' },
  { value: 'outside', label: 'Outside working hours' },
] as const;

/** When a rule watches: always, or by the working calendar of the plant. */
export function HoursPanel({ hours, onChange }: HoursPanelProps) {
  const palette = usePalette();
  const chosen =
    hours === null ? 'always' : hours.kind === 'working' ? (hours.inside ? 'inside' : 'outside') : null;
  return (
    <>
      <WordRow
        name="When it watches"
        options={OPTIONS}
        chosen={chosen}
        onChoose={(value) =>
          onChange(value === 'always' ? null : { kind: 'working', inside: value === 'inside' })
        }
      />
      <Words as="second" colour={palette.ink2}>
        {hours === null
          ? 'Around the clock.'
          : 'By the working calendar of the plant. When these hours end, an alarm that stands ends too.'}
      </Words>
    </>
  );
}

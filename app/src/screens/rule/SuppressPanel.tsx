import { useState } from 'react';
import { RUNNING, stateTestWords, type Metric, type SuppressWhile } from '@vivid-beacon/core';
import { MetricPick } from '../../assets/MetricPick';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

interface SuppressPanelProps {
  readonly suppress: SuppressWhile | null;
  readonly metric: Metric;
  readonly onChange: (suppress: SuppressWhile | null) => void;
}

/** In which state of the plant a rule is meant to be silent. */
export function SuppressPanel({ suppress, metric, onChange }: SuppressPanelProps) {
  const palette = usePalette();
  const [where, setWhere] = useState<'plant' | 'anywhere'>('plant');
  return (
    <>
      <Words as="second" colour={palette.ink2}>
        Suppressed by design: what it finds in this state is recorded, and nobody is notified.
      </Words>
      {suppress && (
        <WordRow
          name="Suppressed while it is"
          options={[
            { value: 'not', label: stateTestWords(RUNNING, false) },
            { value: 'running', label: stateTestWords(RUNNING, true) },
            { value: 'stopped', label: stateTestWords(0, true) },
          ]}
          chosen={suppress.code === RUNNING ? (suppress.is ? 'running' : 'not') : 'stopped'}
          onChoose={(value) =>
            onChange({ ...suppress, code: value === 'stopped' ? 0 : RUNNING, is: value !== 'not' })
          }
        />
      )}
      <WordRow
        name="Where the state is"
        options={[
          { value: 'plant', label: metric.plantName },
          { value: 'anywhere', label: 'anywhere' },
        ]}
        chosen={where}
        onChoose={setWhere}
      />
      <MetricPick
        name="State"
        maxHeight={260}
        filter={{ kind: 'state', ...(where === 'plant' && { under: metric.plantId }) }}
        instead={{ label: 'In any state', onChoose: () => onChange(null) }}
        chosen={suppress?.metricId ?? null}
        onChoose={({ id }) => onChange({ code: RUNNING, is: false, ...suppress, metricId: id })}
      />
    </>
  );
}

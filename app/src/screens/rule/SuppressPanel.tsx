import { RUNNING, stateWords, type Metric, type SuppressWhile } from '@vivid-beacon/core';
import { PickList } from '../../components/PickList';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

interface SuppressPanelProps {
  readonly suppress: SuppressWhile | null;
  readonly metric: Metric;
  readonly metrics: readonly Metric[];
  readonly onChange: (suppress: SuppressWhile | null) => void;
}

const NEVER = 'never';

/** In which state of the plant a rule is meant to be silent. */
export function SuppressPanel({ suppress, metric, metrics, onChange }: SuppressPanelProps) {
  const palette = usePalette();
  const near = (each: Metric): number =>
    each.assetId === metric.assetId ? 0 : each.plantId === metric.plantId ? 1 : 2;
  const states = metrics.filter(({ kind }) => kind === 'state').sort((a, b) => near(a) - near(b));
  return (
    <>
      <Words as="second" colour={palette.ink2}>
        Suppressed by design: what it finds in this state is recorded, and nobody is called.
      </Words>
      {suppress && (
        <WordRow
          name="Silent while it is"
          options={[
            { value: 'not', label: stateWords(RUNNING, false) },
            { value: 'running', label: stateWords(RUNNING, true) },
            { value: 'stopped', label: stateWords(0, true) },
          ]}
          chosen={suppress.code === RUNNING ? (suppress.is ? 'running' : 'not') : 'stopped'}
          onChoose={(value) =>
            onChange({ ...suppress, code: value === 'stopped' ? 0 : RUNNING, is: value !== 'not' })
          }
        />
      )}
      <PickList
        name="State"
        maxHeight={260}
        options={[
          { value: NEVER, label: 'In any state' },
          ...states.map(({ id, name, assetName, plantName }) => ({
            value: id,
            label: `${name}, ${assetName}`,
            detail: plantName,
          })),
        ]}
        chosen={suppress?.metricId ?? NEVER}
        onChoose={(id) =>
          onChange(id === NEVER ? null : { code: RUNNING, is: false, ...suppress, metricId: id })
        }
      />
    </>
  );
}

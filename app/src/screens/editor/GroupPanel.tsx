import { View } from 'react-native';
import type { GroupBy, Readout, ReadoutParts } from '@vivid-beacon/core';
import { groupWords, takesAllMeasures } from '@vivid-beacon/core/src/boards';
import { useAttributes } from '../../api/catalogue';
import { PickList } from '../../components/PickList';
import { Button } from '../../components/Button';
import { WordRow } from '../../components/WordRow';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

interface GroupPanelProps {
  readonly readout: Readout;
  readonly metricName: string;
  readonly onChange: (
    parts: Pick<ReadoutParts, 'groupBy' | 'keepBlanks' | 'measures' | 'multiplesBy' | 'steps'>,
  ) => void;
}

/** One value for each asset, plant, kind or attribute: of every metric with the name of the first. */
export function GroupPanel({ readout, metricName, onChange }: GroupPanelProps) {
  const palette = usePalette();
  const { groupBy, keepBlanks, multiplesBy } = readout;
  // What takes a different value on every asset makes no groups.
  const attributes = (useAttributes().data ?? []).filter(({ many }) => !many);
  const options: { value: string; label: string; by: GroupBy | null }[] = [
    { value: 'none', label: 'Not grouped', by: null },
    { value: 'asset', label: 'By asset', by: { kind: 'asset' } },
    { value: 'plant', label: 'By plant', by: { kind: 'plant' } },
    { value: 'part', label: 'By part, one level down', by: { kind: 'part', assetId: oneAssetOf(readout) } },
    { value: 'assetKind', label: 'By kind of asset', by: { kind: 'assetKind' } },
    { value: 'all', label: 'All together', by: { kind: 'all' } },
    ...attributes.map(({ name }) => ({
      value: `attribute ${name}`,
      label: `By ${name}`,
      by: { kind: 'attribute' as const, name },
    })),
  ];
  const chosen = groupBy === null ? 'none' : optionOf(groupBy);
  const all = takesAllMeasures(readout);
  if (groupBy === null && readout.measures.length > 1 && !all) {
    return (
      <OneMetricOnly
        metricName={metricName}
        others={readout.measures.length - 1}
        onDrop={() => onChange({ measures: readout.measures.slice(0, 1) })}
      />
    );
  }
  return (
    <View style={{ gap: 10 }}>
      <Words as="second" colour={palette.ink2}>
        {all && readout.measures.length > 1
          ? 'Grouped, every metric with one of these names in the scope is taken; ratios are summed first.'
          : `Grouped, every metric named "${metricName}" in the scope is taken; ratios are summed first.`}
      </Words>
      <PickList
        name="Group"
        options={options.map(({ value, label }) => ({ value, label }))}
        chosen={chosen}
        onChoose={(value) => onChange({ groupBy: options.find((each) => each.value === value)!.by })}
      />
      {groupBy && (
        <>
          <Words as="sectionHead" heading={3}>
            In small copies
          </Words>
          <Words as="second" colour={palette.ink2}>
            The same drawing once for each group, all on one scale.
          </Words>
          <PickList
            name="In small copies"
            options={[
              { value: 'none', label: 'Drawn once' },
              ...options
                .filter(({ by, value }) => by !== null && by.kind !== 'all' && value !== chosen)
                .map(({ value, label }) => ({ value, label: label.replace(/^By /, 'One for each ') })),
            ]}
            chosen={multiplesBy === null ? 'none' : optionOf(multiplesBy)}
            onChoose={(value) =>
              onChange({ multiplesBy: options.find((each) => each.value === value)?.by ?? null })
            }
          />
        </>
      )}
      {groupBy && <StepsPick readout={readout} attributes={attributes} onChange={onChange} />}
      {groupBy?.kind === 'attribute' && (
        <WordRow
          name="Assets without it"
          options={[
            { value: 'keep', label: `keep those without ${groupBy.name}` },
            { value: 'drop', label: 'drop them' },
          ]}
          chosen={keepBlanks ? 'keep' : 'drop'}
          onChoose={(value) => onChange({ keepBlanks: value === 'keep' })}
        />
      )}
    </View>
  );
}

/** Key of a grouping among those that are offered. */
const optionOf = (by: GroupBy): string => (by.kind === 'attribute' ? `attribute ${by.name}` : by.kind);

/** By what its groups are divided when one steps down: attributes in order, then assets. */
function StepsPick({
  readout: { groupBy, steps },
  attributes,
  onChange,
}: Pick<GroupPanelProps, 'readout' | 'onChange'> & {
  readonly attributes: readonly { readonly name: string }[];
}) {
  const palette = usePalette();
  const taken = new Set(
    [groupBy, ...steps].flatMap((by) => (by?.kind === 'attribute' ? [by.name.toLowerCase()] : [])),
  );
  const left = attributes.filter(({ name }) => !taken.has(name.toLowerCase()));
  if (steps.length === 0 && left.length === 0) return null;
  return (
    <View style={{ gap: 6 }}>
      <Words as="second" colour={palette.ink2}>
        {steps.length === 0
          ? 'A step down from a group leads to its assets. It can go through attributes first:'
          : `A step down leads ${steps.map(groupWords).join(', then ')}, then to assets.`}
      </Words>
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 8 }}>
        {steps.length < MOST_STEPS &&
          left.map(({ name }) => (
            <Button
              key={name}
              variant="quiet"
              label={`${steps.length === 0 ? 'First' : 'Then'} by ${name}`}
              onPress={() => onChange({ steps: [...steps, { kind: 'attribute', name }] })}
            />
          ))}
        {steps.length > 0 && (
          <Button variant="quiet" label="Straight to assets" onPress={() => onChange({ steps: [] })} />
        )}
      </View>
    </View>
  );
}

const MOST_STEPS = 5;

/** The asset whose parts are meant: the only one of its scope; else plants are the parts. */
function oneAssetOf({ scope }: Readout): string | null {
  return scope?.assetIds?.length === 1 ? scope.assetIds[0] : null;
}

/** Why a readout with several metrics is not grouped, and what to do about it. */
export function OneMetricOnly({
  metricName,
  others,
  onDrop,
}: {
  readonly metricName: string;
  readonly others: number;
  readonly onDrop: () => void;
}) {
  return (
    <View style={{ gap: 10 }}>
      <Words as="body">
        {`A grouped readout shows one metric for each asset or group. This one has ${others === 1 ? 'another' : `${others} others`}, which would not be shown: give ${others === 1 ? 'it' : 'them'} a readout of ${others === 1 ? 'its' : 'their'} own.`}
      </Words>
      <Button label={`Keep only ${metricName}`} onPress={onDrop} />
    </View>
  );
}

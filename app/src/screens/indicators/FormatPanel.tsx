import { DISPLAY_SCALES, type IndicatorDefinition } from '@vivid-beacon/core';
import { WordRow } from '../../components/WordRow';

interface FormatPanelProps {
  readonly definition: IndicatorDefinition;
  readonly onChange: (
    part: Pick<IndicatorDefinition, 'decimals'> | Pick<IndicatorDefinition, 'display'>,
  ) => void;
}

const DECIMALS = [0, 1, 2, 3].map((value) => ({
  value: String(value),
  label: value === 0 ? 'None' : String(value),
}));
const SCALES = DISPLAY_SCALES.map((value) => ({
  value,
  label: `${value[0].toUpperCase()}${value.slice(1)}`,
}));

/** How its numbers are written everywhere. */
export function FormatPanel({ definition, onChange }: FormatPanelProps) {
  return (
    <>
      <WordRow
        name="Decimals"
        options={DECIMALS}
        chosen={String(definition.decimals)}
        onChoose={(decimals) => onChange({ decimals: Number(decimals) })}
      />
      <WordRow
        name="In"
        options={SCALES}
        chosen={definition.display}
        onChoose={(display) => onChange({ display })}
      />
    </>
  );
}

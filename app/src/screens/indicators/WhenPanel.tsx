import { StyleSheet, View } from 'react-native';
import { sameWindow, windowWords, type IndicatorDefinition } from '@vivid-beacon/core';
import { PickList } from '../../components/PickList';
import { HoursPanel } from '../../components/scope/HoursPanel';
import { Words } from '../../components/Words';
import { RELATIVE_WINDOWS } from '../editor/relativeWindows';

interface WhenPanelProps {
  readonly definition: IndicatorDefinition;
  readonly onChange: (part: Partial<IndicatorDefinition>) => void;
}

const capital = (text: string): string => text[0].toUpperCase() + text.slice(1);

/** Over which window an indicator is judged, and in which hours only. */
export function WhenPanel({ definition, onChange }: WhenPanelProps) {
  return (
    <View style={styles.panel}>
      <PickList
        name="Window"
        searchFrom={99}
        options={RELATIVE_WINDOWS.map((spec, i) => ({ value: String(i), label: capital(windowWords(spec)) }))}
        chosen={String(RELATIVE_WINDOWS.findIndex((spec) => sameWindow(spec, definition.window)))}
        onChoose={(i) => onChange({ window: RELATIVE_WINDOWS[Number(i)] })}
      />
      <Words as="bodyStrong">Which hours</Words>
      <HoursPanel hours={definition.hours} onChange={(hours) => onChange({ hours })} />
    </View>
  );
}

const styles = StyleSheet.create({ panel: { gap: 8 } });

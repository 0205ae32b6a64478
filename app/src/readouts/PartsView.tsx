import type { ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { Loading } from '../components/Loading';
import { Notice } from '../components/Notice';
import type { Part } from '../boards/parts';
import type { PartsAnswer } from '../boards/useParts';

interface PartsViewProps {
  readonly answer: PartsAnswer;
  /** What is being read, for people: "Reading the gauge". */
  readonly reading: string;
  readonly children: (parts: readonly Part[]) => ReactNode;
}

/** Shows the values of a readout, or that they are on their way, or why they could not be had. */
export function PartsView({ answer, reading, children }: PartsViewProps) {
  const { parts, error, old, again } = answer;
  if (parts && parts.length > 0 && !(old && error))
    return <View style={old && styles.old}>{children(parts)}</View>;
  if (error) {
    return (
      <Notice
        kind="error"
        title="This could not be read"
        text={error.message}
        action={{ label: 'Read again', onPress: again }}
      />
    );
  }
  if (parts)
    return <Notice kind="empty" title="Nothing in this scope" text="No metric of the readout lies in it." />;
  return <Loading what={reading} />;
}

const styles = StyleSheet.create({ old: { opacity: 0.6 } });

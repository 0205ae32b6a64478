import { useState, type ReactNode } from 'react';
import { StyleSheet, View } from 'react-native';
import { Loading } from '../components/Loading';
import { Notice } from '../components/Notice';
import type { Part } from '../boards/parts';
import type { PartsAnswer } from '../boards/useParts';
import { PartTray } from './PartTray';

interface PartsViewProps {
  readonly answer: PartsAnswer;
  readonly title: string;
  /** What is being read, for people: "Reading the gauge". */
  readonly reading: string;
  /** Draws the values; `onOpen` opens how one of them was made. */
  readonly children: (parts: readonly Part[], onOpen: (part: Part) => void) => ReactNode;
}

/** The values of a readout, or that they are on their way, or why they could not be had; and the tray of one. */
export function PartsView({ answer, title, reading, children }: PartsViewProps) {
  const { parts, error, old, again } = answer;
  const [open, setOpen] = useState<Part | null>(null);
  if (parts && parts.length > 0 && !(old && error)) {
    return (
      <View style={old && styles.old}>
        {children(parts, setOpen)}
        <PartTray
          title={title}
          readout={answer.shown.readout}
          decimals={answer.decimals}
          part={open}
          onClose={() => setOpen(null)}
        />
      </View>
    );
  }
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

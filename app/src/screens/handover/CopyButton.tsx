import { useState } from 'react';
import { View } from 'react-native';
import { Button } from '../../components/Button';

type Outcome = 'none' | 'copied' | 'failed';

const LABELS: Readonly<Record<Outcome, string>> = {
  none: 'Copy as text',
  copied: 'Copied',
  failed: 'Could not copy',
};

/** Copies a text and says whether it worked. */
export function CopyButton({ text }: { readonly text: string }) {
  const [outcome, setOutcome] = useState<Outcome>('none');
  const copy = async (): Promise<void> => {
    try {
      await navigator.clipboard.writeText(text);
      setOutcome('copied');
    } catch {
      // Browsers refuse it on plain addresses that are not this machine.
      setOutcome('failed');
    }
  };
  return (
    <View aria-live="polite">
      <Button variant="quiet" label={LABELS[outcome]} onPress={() => void copy()} />
    </View>
  );
}

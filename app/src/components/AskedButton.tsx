import { useState } from 'react';
import { Button } from './Button';
import { RemovalTray } from './RemovalTray';

interface AskedButtonProps {
  readonly label: string;
  readonly disabled?: boolean;
  /** Of the question. */
  readonly title: string;
  /** What follows. */
  readonly words: string;
  /** The button that does it, in the question. */
  readonly verb: string;
  readonly change: {
    readonly mutateAsync: () => Promise<unknown>;
    readonly isPending: boolean;
    readonly error: Error | null;
  };
}

/** A button that asks before it does what is not undone by a tap. */
export function AskedButton({ label, disabled, title, words, verb, change }: AskedButtonProps) {
  const [asking, setAsking] = useState(false);
  return (
    <>
      <Button label={label} disabled={disabled || change.isPending} onPress={() => setAsking(true)} />
      <RemovalTray
        title={title}
        open={asking}
        words={words}
        effects={[]}
        verb={verb}
        pending={change.isPending}
        error={asking ? (change.error?.message ?? null) : null}
        onClose={() => setAsking(false)}
        onRemove={() =>
          void change.mutateAsync().then(
            () => setAsking(false),
            () => undefined,
          )
        }
      />
    </>
  );
}

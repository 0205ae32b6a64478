import { useState } from 'react';
import type { Restorable } from '@vivid-beacon/core';
import { useRemovalEffects, useRestore } from '../api/removals';
import { useUndoStore } from '../stores/undoStore';
import { Button } from './Button';
import { RemovalTray } from './RemovalTray';

interface RemoveThingProps {
  readonly what: 'metric' | Restorable;
  readonly id: string;
  readonly name: string;
  /** What happens, and how it is undone later. */
  readonly words: string;
  readonly removal: {
    readonly mutateAsync: (id: string) => Promise<unknown>;
    readonly isPending: boolean;
    readonly error: Error | null;
  };
  /** Default: the restoration of its kind. */
  readonly undo?: () => Promise<unknown>;
  /** After it is gone. */
  readonly onGone: () => void;
}

/** The button that removes something: asks with what will follow, and offers to undo it afterwards from any screen. */
export function RemoveThing({ what, id, name, words, removal, undo, onGone }: RemoveThingProps) {
  const [asking, setAsking] = useState(false);
  const effects = useRemovalEffects(what, id, asking);
  const restore = useRestore();
  const { give } = useUndoStore((state) => state.actions);
  const back =
    undo ?? (() => (what === 'metric' ? Promise.resolve() : restore.mutateAsync({ kind: what, id })));
  // The page goes with what it shows, so that what follows must not hang on it.
  const remove = (): void =>
    void removal
      .mutateAsync(id)
      .then(() => {
        setAsking(false);
        give({ words: `${name} removed`, undo: back });
        onGone();
      })
      .catch(() => undefined);
  return (
    <>
      <Button
        variant="quiet"
        label="Remove"
        name={`Remove ${what} ${name}`}
        onPress={() => setAsking(true)}
      />
      <RemovalTray
        title={`Remove ${name}`}
        open={asking}
        words={words}
        effects={effects.data ?? null}
        verb="Remove"
        pending={removal.isPending}
        error={removal.error?.message ?? effects.error?.message ?? null}
        onClose={() => setAsking(false)}
        onRemove={remove}
      />
    </>
  );
}

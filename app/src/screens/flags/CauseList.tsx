import { useAddCause, useFlagCauses, useRemoveCause } from '../../api/flags';
import { QueryResult } from '../../components/QueryResult';
import { Button } from '../../components/Button';
import { Refusal } from '../../components/Refusal';
import { RemarkField } from '../../components/RemarkField';
import { Row } from '../../components/Row';
import { Words } from '../../components/Words';
import { useUndoStore } from '../../stores/undoStore';

/** The organisation's causes: whoever closes a flag chooses from them. */
export function CauseList() {
  const causes = useFlagCauses();
  const add = useAddCause();
  const remove = useRemoveCause();
  const { give } = useUndoStore((state) => state.actions);
  const removeIt = (id: string, name: string): void =>
    void remove
      .mutateAsync(id)
      .then(() => give({ words: `${name} removed from the causes`, undo: () => add.mutateAsync(name) }))
      .catch(() => undefined);
  return (
    <QueryResult query={causes} reading="Loading causes">
      {(rows) => (
        <>
          {rows.length === 0 && <Words as="body">No causes yet.</Words>}
          {rows.map(({ id, name }, i) => (
            <Row
              key={id}
              title={name}
              last={i === rows.length - 1}
              right={
                <Button
                  variant="quiet"
                  label="Remove"
                  name={`Remove ${name} from the list`}
                  disabled={remove.isPending}
                  onPress={() => removeIt(id, name)}
                />
              }
            />
          ))}
          <RemarkField
            label="Add a cause"
            pending={add.isPending}
            error={add.error}
            onAdd={(name, clear) => add.mutate(name, { onSuccess: clear })}
          />
          <Refusal of={remove} />
        </>
      )}
    </QueryResult>
  );
}

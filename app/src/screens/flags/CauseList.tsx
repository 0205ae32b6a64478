import { useAddCause, useFlagCauses, useRemoveCause } from '../../api/flags';
import { Answer } from '../../components/Answer';
import { Button } from '../../components/Button';
import { Refusal } from '../../components/Refusal';
import { RemarkField } from '../../components/RemarkField';
import { Row } from '../../components/Row';
import { Words } from '../../components/Words';

/** The organisation's causes: whoever closes a flag chooses from them. */
export function CauseList() {
  const causes = useFlagCauses();
  const add = useAddCause();
  const remove = useRemoveCause();
  return (
    <Answer query={causes} reading="Reading causes">
      {(rows) => (
        <>
          {rows.length === 0 && <Words as="body">No cause is on the list yet.</Words>}
          {rows.map(({ id, name }, i) => (
            <Row
              key={id}
              title={name}
              last={i === rows.length - 1}
              right={
                <Button
                  look="quiet"
                  label="Take off"
                  name={`Take ${name} off the list`}
                  disabled={remove.isPending}
                  onPress={() => remove.mutate(id)}
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
    </Answer>
  );
}

import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import type { Scope } from '@vivid-beacon/core';
import { useAttributes } from '../../api/catalogue';
import { setAttribute } from '../../boards/scopeEdits';
import { Button } from '../Button';
import { PickList } from '../PickList';
import { ToggleRow } from '../ToggleRow';
import { Words } from '../Words';

interface AttributeConditionsProps {
  readonly attributes: Scope['attributes'];
  readonly onChange: (attributes: Scope['attributes']) => void;
}

/** Only assets with these attributes: each with the values that count. */
export function AttributeConditions({ attributes, onChange }: AttributeConditionsProps) {
  const known = useAttributes().data ?? [];
  const [adding, setAdding] = useState(false);
  // What takes a different value on every asset is a measure and no condition.
  const free = known.filter(({ name, many }) => !many && !attributes.some((each) => each.name === name));
  return (
    <>
      {attributes.map(({ name, values }) => (
        <View key={name} style={styles.attribute}>
          <Words as="rowTitle">{name}</Words>
          <ToggleRow
            name={name}
            options={(known.find((each) => each.name === name)?.values ?? values).map((value) => ({
              value,
              label: String(value),
            }))}
            chosen={[...values]}
            onChange={(next) => onChange(setAttribute(attributes, name, next))}
          />
        </View>
      ))}
      {adding ? (
        <PickList
          name="Attribute"
          options={free.map(({ name, values }) => ({
            value: name,
            label: name,
            detail: values.slice(0, 4).join(', '),
          }))}
          chosen={null}
          onChoose={(name) => {
            const first = free.find((each) => each.name === name)!.values[0];
            onChange(setAttribute(attributes, name, [first]));
            setAdding(false);
          }}
        />
      ) : (
        free.length > 0 && (
          <Button variant="quiet" label="Only with an attribute" onPress={() => setAdding(true)} />
        )
      )}
    </>
  );
}

const styles = StyleSheet.create({ attribute: { gap: 6 } });

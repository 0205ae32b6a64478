import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import type { Scope } from '@vivid-beacon/core';
import { useAssetTree } from '../../assets/useAssetTree';
import { toggleAsset } from '../../boards/scopeEdits';
import { usePalette } from '../../theme/useTheme';
import { Button } from '../Button';
import { Field } from '../Field';
import { CheckIcon, OnIcon, OpenIcon } from '../icons';
import { Rule } from '../Rule';
import { Words } from '../Words';
import { AttributeConditions } from './AttributeConditions';

interface ScopePanelProps {
  readonly scope: Scope;
  readonly onChange: (scope: Scope) => void;
}

const SHOWN = 120;

/** Which assets: any of the tree with all below them, and those with given attributes. */
export function ScopePanel({ scope, onChange }: ScopePanelProps) {
  const palette = usePalette();
  const [search, setSearch] = useState('');
  const tree = useAssetTree(search);
  const rows = tree.rows?.slice(0, SHOWN) ?? [];
  const chosen = new Set(scope.assetIds ?? []);
  return (
    <>
      <Words as="second" colour={palette.ink2}>
        {chosen.size === 0
          ? 'All assets. Choose some to see only them and what is below them.'
          : `${chosen.size} chosen, with everything below`}
      </Words>
      <Field
        label="Search assets"
        hideLabel
        placeholder="Search assets"
        value={search}
        onChange={setSearch}
      />
      <View role="tree" aria-label="Assets of the scope" aria-multiselectable style={styles.tree}>
        {rows.map(({ asset, depth, children }) => {
          const on = chosen.has(asset.id);
          const isOpen = tree.isOpen(asset.id);
          const Icon = isOpen ? OpenIcon : OnIcon;
          return (
            <View
              key={asset.id}
              role="treeitem"
              aria-selected={on}
              {...({ 'aria-level': depth + 1 } as object)}
            >
              <View
                style={[styles.line, { paddingLeft: depth * 16 }, on && { backgroundColor: palette.water }]}
              >
                {children > 0 ? (
                  <Pressable
                    role="button"
                    aria-label={`${isOpen ? 'Close' : 'Open'} ${asset.name}`}
                    onPress={() => tree.toggle(asset.id)}
                    style={styles.toggle}
                  >
                    <Icon size={18} color={palette.ink2} strokeWidth={1.75} />
                  </Pressable>
                ) : (
                  <View style={styles.toggle} />
                )}
                <Pressable
                  role="checkbox"
                  aria-checked={on}
                  onPress={() => onChange(toggleAsset(scope, asset.id))}
                  style={styles.name}
                >
                  <Words as={on ? 'bodyStrong' : 'body'}>{asset.name}</Words>
                  {on && <CheckIcon size={18} color={palette.sea} strokeWidth={1.75} />}
                </Pressable>
              </View>
              <Rule />
            </View>
          );
        })}
      </View>
      {(tree.more > 0 || tree.hidden > 0 || (tree.rows?.length ?? 0) > SHOWN) && (
        <Words as="second" colour={palette.ink3}>
          There are more. Type to narrow them down.
        </Words>
      )}
      <AttributeConditions
        attributes={scope.attributes}
        onChange={(attributes) => onChange({ ...scope, attributes })}
      />
      <Button
        label="All assets"
        disabled={chosen.size === 0 && scope.attributes.length === 0}
        onPress={() => onChange({ assetIds: null, attributes: [] })}
      />
    </>
  );
}

const styles = StyleSheet.create({
  tree: { maxHeight: 320, overflow: 'scroll' } as object,
  line: { flexDirection: 'row', alignItems: 'center', minHeight: 44 },
  toggle: { width: 34, height: 44, alignItems: 'center', justifyContent: 'center' },
  name: {
    flex: 1,
    minHeight: 44,
    flexDirection: 'row',
    alignItems: 'center',
    justifyContent: 'space-between',
    paddingRight: 8,
  },
});

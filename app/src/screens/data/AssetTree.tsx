import { useState } from 'react';
import { Pressable, StyleSheet, View } from 'react-native';
import { formatNumber } from '@vivid-beacon/core';
import { useAssetTree, type TreeRow } from '../../assets/useAssetTree';
import { QueryResult } from '../../components/QueryResult';
import { Field } from '../../components/Field';
import { OnIcon, OpenIcon } from '../../components/icons';
import { LampWord } from '../../components/LampWord';
import { Rule } from '../../components/Rule';
import { Words } from '../../components/Words';
import { usePalette } from '../../theme/useTheme';

interface AssetTreeProps {
  readonly chosen: string | null;
  readonly onChoose: (id: string) => void;
}

const SHOWN_AT_ONCE = 200;

/** The asset tree with search; a few plants are open at first. */
export function AssetTree({ chosen, onChoose }: AssetTreeProps) {
  const palette = usePalette();
  const [search, setSearch] = useState('');
  const [shown, setShown] = useState(SHOWN_AT_ONCE);
  const tree = useAssetTree(search);
  const hidden = (tree.rows?.length ?? 0) - shown;
  return (
    <View style={styles.tree}>
      <Field
        label="Search assets"
        hideLabel
        placeholder="Search assets by name, kind or attribute"
        value={search}
        onChange={setSearch}
      />
      <QueryResult
        query={{ data: tree.rows, error: tree.error, refetch: tree.again }}
        reading="Loading assets"
      >
        {(rows) => (
          <>
            <View role="tree" aria-label="Assets">
              {rows.slice(0, shown).map((row) => (
                <TreeLine
                  key={row.asset.id}
                  row={row}
                  open={tree.isOpen(row.asset.id)}
                  chosen={row.asset.id === chosen}
                  onToggle={() => tree.toggle(row.asset.id)}
                  onChoose={() => onChoose(row.asset.id)}
                />
              ))}
            </View>
            {(hidden > 0 || tree.more > 0) && (
              <Pressable
                role="button"
                onPress={() => (hidden > 0 ? setShown(shown + SHOWN_AT_ONCE) : tree.loadMore())}
                style={styles.more}
              >
                <Words as="bodyStrong">{`Show more, ${formatNumber(Math.max(0, hidden) + tree.more, 0)} are left`}</Words>
              </Pressable>
            )}
            {tree.hidden > 0 && (
              <Words as="second" colour={palette.ink2}>
                {`${formatNumber(tree.hidden, 0)} more are below those shown. Search to find them.`}
              </Words>
            )}
            {rows.length === 0 && (
              <Words as="body" colour={palette.ink2}>
                {search ? `No asset matches "${search}".` : 'There are no assets yet. Add a plant first.'}
              </Words>
            )}
          </>
        )}
      </QueryResult>
    </View>
  );
}

interface TreeLineProps {
  readonly row: TreeRow;
  readonly open: boolean;
  readonly chosen: boolean;
  readonly onToggle: () => void;
  readonly onChoose: () => void;
}

function TreeLine({ row, open, chosen, onToggle, onChoose }: TreeLineProps) {
  const palette = usePalette();
  const { asset, depth, children, metrics, troubled } = row;
  const Icon = open ? OpenIcon : OnIcon;
  const facts = [asset.kind, metrics > 0 && `${metrics} ${metrics === 1 ? 'metric' : 'metrics'}`].filter(
    Boolean,
  );
  return (
    <View
      role="treeitem"
      {...({ 'aria-level': depth + 1 } as object)}
      aria-expanded={children > 0 ? open : undefined}
      aria-selected={chosen}
    >
      <View
        style={[
          styles.line,
          { paddingLeft: depth * 18 },
          chosen && { backgroundColor: palette.water, borderLeftColor: palette.sea, borderLeftWidth: 3 },
        ]}
      >
        {children > 0 ? (
          <Pressable
            role="button"
            aria-label={`${open ? 'Close' : 'Open'} ${asset.name}`}
            onPress={onToggle}
            style={styles.toggle}
          >
            <Icon size={18} color={palette.ink2} strokeWidth={1.75} />
          </Pressable>
        ) : (
          <View style={styles.toggle} />
        )}
        <Pressable role="link" onPress={onChoose} style={styles.name}>
          <Words as={depth === 0 ? 'rowTitle' : 'body'} lines={2}>
            {asset.name}
          </Words>
          <Words as="second" colour={palette.ink2}>
            {facts.join(', ')}
          </Words>
        </Pressable>
        {troubled > 0 && <LampWord level="nodata" word={`${troubled} to check`} onWater={chosen} />}
      </View>
      <Rule />
    </View>
  );
}

const styles = StyleSheet.create({
  tree: { gap: 8 },
  line: { flexDirection: 'row', alignItems: 'center', minHeight: 46 },
  toggle: { width: 36, height: 44, alignItems: 'center', justifyContent: 'center' },
  name: {
    flex: 1,
    minHeight: 44,
    flexDirection: 'row',
    alignItems: 'center',
    alignContent: 'center',
    columnGap: 10,
    flexWrap: 'wrap',
    paddingVertical: 4,
  },
  more: { minHeight: 44, justifyContent: 'center' },
});

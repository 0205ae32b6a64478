import { useState } from 'react';
import { useRouter } from 'expo-router';
import { View } from 'react-native';
import type { Metric, PathOf, Readout } from '@vivid-beacon/core';
import { stepDown, type ReadoutValue, type Step } from '@vivid-beacon/core/src/boards';
import { useBoardPages } from '../api/boards';
import { mayAct, mayBuild } from '../api/mayAct';
import { usePerson } from '../api/session';
import { useBoardFilters } from '../boards/BoardFiltersContext';
import { Button } from '../components/Button';
import { QueryResult } from '../components/QueryResult';
import { Row } from '../components/Row';
import { Words } from '../components/Words';
import { useOpenPlace } from './useOpenPlace';
import { usePlaceName } from './usePlaceName';

interface WaysOnProps {
  /** Where the assets of its group and of its scope lie; null until it is known. */
  readonly paths: PathOf | null;
  readonly readout: Readout;
  readonly part: ReadoutValue;
  /** The only metric behind it; null = several, or not loaded. */
  readonly metric: Metric | null;
  readonly onStep: (step: Step) => void;
  /** Shows it over time; null where no trend says it. */
  readonly onTrend: (() => void) | null;
  /** Lists the alarms and flags of its time; null until its time is known. */
  readonly onEvents: (() => void) | null;
  /** Hands a flag about it; null until its numbers are there. */
  readonly onFlag: (() => void) | null;
  readonly onClose: () => void;
}

/** Where one can go from a value, the same from every form: its parts, its samples, its asset, boards, a rule, a flag. */
export function WaysOn({
  readout,
  part,
  paths,
  metric,
  onStep,
  onTrend,
  onEvents,
  onFlag,
  onClose,
}: WaysOnProps) {
  const router = useRouter();
  const person = usePerson();
  const { focus, onFocus, onStretch } = useBoardFilters();
  const openPlace = useOpenPlace(readout);
  const place = usePlaceName(readout.link);
  const [boards, setBoards] = useState(false);
  const step = paths && stepDown(readout, part, paths);
  const { assetId } = part;
  const go = (path: Parameters<typeof router.push>[0]): void => {
    onClose();
    router.push(path);
  };
  return (
    <>
      {openPlace && (
        <Button
          variant="primary"
          label={`Open ${place}`}
          onPress={() => {
            onClose();
            openPlace();
          }}
        />
      )}
      {assetId && (
        <Button
          label={focus === assetId ? 'Release the focus' : 'Focus on this asset'}
          onPress={() => {
            onFocus(assetId);
            onClose();
          }}
        />
      )}
      {step && (
        <Button
          variant="quiet"
          label="Show its parts"
          onPress={() => {
            onStep(step);
            onClose();
          }}
        />
      )}
      {onTrend && <Button variant="quiet" label="Show it over time" onPress={onTrend} />}
      {part.over && onStretch && (
        <Button
          variant="quiet"
          label="Make its time the board's window"
          onPress={() => {
            onStretch(part.over!);
            onClose();
          }}
        />
      )}
      {onEvents && <Button variant="quiet" label="Its alarms and flags" onPress={onEvents} />}
      {metric && (
        <Button variant="quiet" label="Open its samples" onPress={() => go(`/data/metrics/${metric.id}`)} />
      )}
      {assetId && (
        <>
          <Button variant="quiet" label="Open its asset" onPress={() => go(`/data/assets/${assetId}`)} />
          <Button
            variant="quiet"
            label={boards ? 'Hide the boards that show it' : 'Boards that show it'}
            onPress={() => setBoards(!boards)}
          />
          {boards && <BoardsOfAsset assetId={assetId} onOpen={go} />}
        </>
      )}
      {metric && mayBuild(person, metric.plantId) && (
        <Button
          variant="quiet"
          label="Write an alarm rule for it"
          onPress={() => go({ pathname: '/alarms/rules/new', params: { metric: metric.id } })}
        />
      )}
      {metric && onFlag && mayAct(person, metric.plantId) && (
        <Button variant="quiet" label="Flag it" onPress={onFlag} />
      )}
    </>
  );
}

/** Boards with a metric of the asset; each opens with the asset in focus. */
function BoardsOfAsset({
  assetId,
  onOpen,
}: {
  readonly assetId: string;
  readonly onOpen: (path: {
    readonly pathname: '/boards/[boardId]';
    readonly params: { readonly boardId: string; readonly focus: string };
  }) => void;
}) {
  const boards = useBoardPages({ search: '', assetId });
  return (
    <QueryResult query={boards} reading="Looking for its boards">
      {({ pages: [{ items, total }] }) => (
        <View>
          {items.length === 0 && <Words as="second">No board shows a metric of it.</Words>}
          {items.map(({ id, title }) => (
            <Row
              key={id}
              title={title}
              onPress={() =>
                onOpen({ pathname: '/boards/[boardId]', params: { boardId: id, focus: assetId } })
              }
            />
          ))}
          {total > items.length && <Words as="second">{`and ${total - items.length} more`}</Words>}
        </View>
      )}
    </QueryResult>
  );
}

import { useRouter } from 'expo-router';
import { useIndicator } from '../../api/indicators';
import { usePeople } from '../../api/queries';
import { QueryResult } from '../../components/QueryResult';
import { IndicatorEditor } from './IndicatorEditor';

/** Writes the definition of an indicator as a sentence, its value and its past always in sight. */
export function IndicatorEditorScreen({ indicatorId }: { readonly indicatorId: string | null }) {
  const router = useRouter();
  const people = usePeople();
  const leave = (): void =>
    router.navigate(indicatorId === null ? '/indicators' : `/indicators/${indicatorId}`);
  return indicatorId === null ? (
    <IndicatorEditor people={people.data ?? []} before={null} onLeave={leave} />
  ) : (
    <Changed indicatorId={indicatorId} people={people.data ?? []} onLeave={leave} />
  );
}

function Changed({
  indicatorId,
  ...rest
}: { readonly indicatorId: string } & Omit<Parameters<typeof IndicatorEditor>[0], 'before'>) {
  const query = useIndicator(indicatorId);
  return (
    <QueryResult query={query} reading="Loading the indicator">
      {({ indicator, targets }) => <IndicatorEditor {...rest} before={{ indicator, targets }} />}
    </QueryResult>
  );
}

import { useRouter } from 'expo-router';
import { useIndicator } from '../../api/indicators';
import { useMetrics, usePeople } from '../../api/queries';
import { Answer } from '../../components/Answer';
import { IndicatorEditor } from './IndicatorEditor';

/** Writes the definition of an indicator as a sentence, its value and its past always in sight. */
export function IndicatorEditorScreen({ indicatorId }: { readonly indicatorId: string | null }) {
  const router = useRouter();
  const metrics = useMetrics();
  const people = usePeople();
  const leave = (): void =>
    router.navigate(indicatorId === null ? '/indicators' : `/indicators/${indicatorId}`);
  return (
    <Answer query={metrics} reading="Reading metrics">
      {(rows) =>
        indicatorId === null ? (
          <IndicatorEditor metrics={rows} people={people.data ?? []} before={null} onLeave={leave} />
        ) : (
          <Changed indicatorId={indicatorId} metrics={rows} people={people.data ?? []} onLeave={leave} />
        )
      }
    </Answer>
  );
}

function Changed({
  indicatorId,
  ...rest
}: { readonly indicatorId: string } & Omit<Parameters<typeof IndicatorEditor>[0], 'before'>) {
  const query = useIndicator(indicatorId);
  return (
    <Answer query={query} reading="Reading the indicator">
      {({ indicator, targets }) => <IndicatorEditor {...rest} before={{ indicator, targets }} />}
    </Answer>
  );
}

import { useRouter } from 'expo-router';
import { formatNumber, type AlarmHealth, type RaisingRule } from '@vivid-beacon/core';
import { Row } from '../../components/Row';
import { Section } from '../../components/Section';
import { Words } from '../../components/Words';

interface FrequentRulesProps {
  readonly health: AlarmHealth;
  readonly rules: readonly RaisingRule[];
  /** May the person change rules? Then a tap opens the rule with its Rehearsal. */
  readonly mayMend: boolean;
}

/** The rules that came most often, with their share of all alarms. */
export function FrequentRules({ health, rules, mayMend }: FrequentRulesProps) {
  const router = useRouter();
  const { topTen, chattering } = health;
  const byId = new Map(rules.map((rule) => [rule.id, rule]));
  return (
    <Section
      title="Most frequent"
      aside={topTen.length > 0 ? `${formatNumber(health.topTenShare * 100, 0)} % of all` : ''}
    >
      {topTen.map(({ ruleId, count, share }, i) => {
        const rule = byId.get(ruleId);
        const notes = [
          `${formatNumber(count, 0)} times, ${formatNumber(share * 100, 0)} % of all`,
          chattering.includes(ruleId) && 'chatters',
          rule?.inForce === false && 'out of force',
        ];
        return (
          <Row
            key={ruleId}
            title={rule?.name ?? 'Removed rule'}
            second={notes.filter(Boolean).join(' · ')}
            onPress={
              mayMend && rule?.inForce
                ? () => router.push({ pathname: '/alarms/rules/new', params: { from: ruleId } })
                : undefined
            }
            last={i === topTen.length - 1}
          />
        );
      })}
      {topTen.length === 0 && <Words as="body">No alarm came in this window.</Words>}
    </Section>
  );
}

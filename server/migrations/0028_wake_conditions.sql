-- 0028 wake conditions: each condition of an alarm rule says itself from when on time alone may change it.
-- compatible: yes
update alarm_watch watch
set condition = watch.condition || jsonb_build_object('wakeAt',
  case when watch.condition ->> 'phase' = 'normal'
       then (watch.condition ->> 'seen')::float8 + (rule.test ->> 'forMs')::float8 else 0 end)
from alarm_rule rule
where rule.id = watch.rule_id and (
  (rule.test ->> 'kind' = 'silence' and watch.condition ->> 'phase' = 'normal' and (watch.condition ->> 'seen')::float8 > 0)
  or (rule.hours is not null and watch.condition ->> 'phase' <> 'normal'));

-- 0030 alarm rules of two stages: the Caution before a Breach is a rule of its own, kept with the one it belongs to.
-- compatible: yes
alter table alarm_rule add column stage_of bigint references alarm_rule (id) on delete cascade;
create unique index alarm_rule_stage_idx on alarm_rule (stage_of) where stage_of is not null;

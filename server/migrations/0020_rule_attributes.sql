-- Rules over a scope may watch only the assets with given attributes: [{ "name": "...", "values": [...] }], all of
-- which must hold.
alter table alarm_rule add column attributes jsonb not null default '[]';

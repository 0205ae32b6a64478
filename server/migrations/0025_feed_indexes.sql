-- 0025 feed indexes: the feeds that need a look are found among thousands that do not.
-- compatible: yes
create index metric_latest_silent_at_idx on metric_latest (silent_at);
create index metric_latest_odd_idx on metric_latest (state) where state <> 'reporting';
create index metric_latest_ahead_idx on metric_latest (ahead_until) where ahead_until is not null;

-- 0026 alarms of metrics: when the alarms of a metric were raised, for the marks along a trend.
-- compatible: yes
create index alarm_metric_raised_idx on alarm (metric_id, raised_at);

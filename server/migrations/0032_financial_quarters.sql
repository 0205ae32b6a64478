-- 0032 financial quarters, and single months of a longer target set otherwise.
-- compatible: no
alter table metric drop constraint metric_period_check,
  add constraint metric_period_check check (period in (
    'day', 'week', 'month', 'quarter', 'year', 'financialQuarter', 'financialYear'));
-- True: this month of a longer period has a target of its own.
alter table indicator_target add column month boolean not null default false;
alter table indicator_target drop constraint indicator_target_pkey,
  add primary key (indicator_id, month, start_date);

-- The odds as they were when the next step was computed: a page that is opened shows them at once. Steps of open jobs
-- are computed anew with them, in the words of today.
alter table job add column belief jsonb;
update job set next_step = null where closed_at is null;

-- A link opens one job to its owner, or one question about it, by the line that asks, for a second opinion.
alter table owner_link rename to job_link;
alter index owner_link_job rename to job_link_job;
alter table job_link add column asked integer check (asked > 0);

-- What was kept of triage lacks which tests were made; it is made anew.
update job set belief = null, next_step = null where closed_at is null;

-- Boards kept as verified stock, and those that are in another machine since.
create index tape_hand_back on tape_entry (job_id) where kind = 'hand-back';

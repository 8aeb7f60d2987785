-- Repairs of the whole shop, counted for how often they take.
create index tape_mended on tape_entry (job_id, seq) where kind = 'mended';

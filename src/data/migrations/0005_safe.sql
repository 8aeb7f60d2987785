-- A strike may itself be struck; then the line counts again. The same rule as struckBy in the core, in one place.
create function is_struck(job uuid, line int) returns boolean language plpgsql stable as $$
begin
  return exists (
    select 1 from tape_entry x
    where x.job_id = job and x.strikes = line and not is_struck(job, x.seq)
  );
end $$;
create view tape_standing with (security_invoker = true) as
  select * from tape_entry t
  where case
    when exists (select 1 from tape_entry x where x.job_id = t.job_id and x.strikes = t.seq)
      then not is_struck(t.job_id, t.seq)
    else true
  end;

-- A job that is read in again is known by the ids of its lines.
create index tape_entry_id on tape_entry (id);

-- What each job's strokes came to, derived with its state, so that the record is not read line by line.
create table stroke_tally (
  job_id uuid not null references job (id),
  technique text not null,
  damage text,
  light text,
  magnification text,
  tried int not null,
  snapped int not null,
  predicted double precision not null
);
create index stroke_tally_job on stroke_tally (job_id);
insert into stroke_tally
  select job_id, body ->> 'technique', body ->> 'damage', body ->> 'light', body ->> 'magnification',
         count(*), count(*) filter (where body ->> 'result' = 'snapped'),
         sum((body ->> 'predictedSnaps')::float8 / coalesce((body ->> 'snapFactor')::float8, 1))
  from tape_standing where kind = 'stroke' and body ->> 'predictedSnaps' is not null
  group by 1, 2, 3, 4, 5;

-- Two people of one name cannot be told apart on a tape.
update account a set name = a.name || ' (' || a.login || ')'
  where exists (select 1 from account b where lower(b.name) = lower(a.name) and b.created_at < a.created_at);
create unique index account_name on account (lower(name));

-- Bounded sign-in: attempts are counted by rate-limiter-flexible, which keeps its own table.
drop table sign_in_attempt;
create table sign_in_limit (
  key varchar(255) primary key,
  points integer not null default 0,
  expire bigint
);
-- The code that makes the first lead, hashed; gone once it was used.
create table first_lead_code (
  code_hash text primary key,
  created_at timestamptz not null default now()
);
-- Where an account has signed in from, hashed: strangers elsewhere cannot lock it out there.
alter table session add column address_hash text not null default '';

-- What this database is: the demo shop is never laid over a real one.
create table shop_mark (name text primary key, created_at timestamptz not null default now());

do $$
begin
  if exists (select 1 from pg_roles where rolname = 'needle_app') then
    grant select, insert, update, delete on stroke_tally, sign_in_limit, first_lead_code to needle_app;
    grant select on tape_standing, shop_mark to needle_app;
  end if;
end $$;

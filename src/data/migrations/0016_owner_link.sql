-- A link by which an owner sees how their board stands, without an account. Only a hash of it is kept: whoever reads the
-- database cannot open one.
create table owner_link (
  id uuid primary key,
  job_id uuid not null references job (id),
  token_sha256 bytea not null unique,
  made_by uuid not null references account (id),
  made_at timestamptz not null default now(),
  expires_at timestamptz not null,
  revoked_at timestamptz
);
create index owner_link_job on owner_link (job_id);

do $$
begin
  if exists (select 1 from pg_roles where rolname = 'needle_app') then
    grant select, insert, update on owner_link to needle_app;
  end if;
end $$;

-- Up Migration

create table account (
  id uuid primary key,
  login text not null,
  name text not null,
  role text not null check (role in ('lead', 'technician')),
  password_hash text not null,
  created_at timestamptz not null default now(),
  disabled_at timestamptz
);
create unique index account_login on account (lower(login));

-- The cookie holds a random word; only its hash is kept, so a stolen table opens nothing.
create table session (
  token_hash text primary key,
  account_id uuid not null references account (id),
  agent text not null default '',
  created_at timestamptz not null default now(),
  expires_at timestamptz not null,
  revoked_at timestamptz
);
create index session_account on session (account_id, created_at desc);

create table sign_in_attempt (
  id bigint generated always as identity primary key,
  login text not null,
  address text not null,
  good boolean not null,
  at timestamptz not null default now()
);
create index sign_in_attempt_login on sign_in_attempt (login, at desc);
create index sign_in_attempt_address on sign_in_attempt (address, at desc);

create table socket (
  id text primary key,
  name text not null unique,
  kind text not null check (kind in ('land-grid', 'pin-grid')),
  pitch_mm numeric not null,
  contact_count int not null,
  contacts jsonb not null,
  source text not null default '',
  created_at timestamptz not null default now()
);

create table board_model (
  id text primary key,
  maker text not null,
  name text not null,
  revision text not null default '',
  socket_id text references socket (id),
  notes text not null default '',
  created_at timestamptz not null default now(),
  unique (maker, name, revision)
);

create table landmark (
  id uuid primary key,
  board_model_id text not null references board_model (id),
  what text not null,
  place text not null,
  blocked_by text not null default '',
  photo_sha256 text,
  created_at timestamptz not null default now()
);
create index landmark_board on landmark (board_model_id, what);

-- Personal data stands outside the tape so that it can be erased while the technical record stays.
create table customer (
  id uuid primary key,
  name text not null,
  contact text not null default '',
  erased_at timestamptz
);

create sequence job_tag as int start 400;

create table job (
  id uuid primary key,
  tag text not null unique,
  customer_id uuid references customer (id),
  created_at timestamptz not null default now(),
  created_by uuid not null references account (id),
  -- Below here: derived from the tape in the same transaction, rebuilt by `npm run rebuild`.
  seq int not null default 0,
  state jsonb not null default '{}',
  board text not null default '',
  words text not null default '',
  socket_id text references socket (id),
  promised_at timestamptz,
  outcome text,
  closed_at timestamptz,
  bench jsonb not null default '{}'
);
create index job_open on job (promised_at, id) where closed_at is null;
create index job_closed on job (closed_at desc, id desc) where closed_at is not null;

create table tape_entry (
  job_id uuid not null references job (id),
  seq int not null check (seq > 0),
  id uuid not null,
  at timestamptz not null,
  recorded_at timestamptz not null default now(),
  by_account uuid references account (id),
  by_name text not null,
  kind text not null,
  v int not null,
  body jsonb not null,
  strikes int,
  primary key (job_id, seq),
  unique (job_id, id)
);

create function tape_is_append_only() returns trigger language plpgsql as $$
begin
  raise exception 'the tape is append-only: % on % is refused', tg_op, tg_table_name using errcode = 'restrict_violation';
end $$;
create trigger tape_entry_keeps before update or delete on tape_entry for each row execute function tape_is_append_only();
create trigger tape_entry_stays before truncate on tape_entry for each statement execute function tape_is_append_only();

create table file (
  id uuid primary key,
  sha256 text unique,
  type text not null,
  bytes bigint not null default 0,
  width int,
  height int,
  created_at timestamptz not null default now()
);

create table file_chunk (
  file_id uuid not null references file (id) on delete cascade,
  n int not null,
  sha256 text not null,
  data bytea not null,
  primary key (file_id, n)
);
alter table file_chunk alter column data set storage external;

-- Access to a file goes by what it hangs on, never by knowing its hash.
create table job_file (
  job_id uuid not null references job (id),
  sha256 text not null references file (sha256),
  purpose text not null,
  created_at timestamptz not null default now(),
  primary key (job_id, sha256)
);

create table board_file (
  board_model_id text not null references board_model (id),
  sha256 text not null references file (sha256),
  primary key (board_model_id, sha256)
);

-- The application's role may add to the tape and read it, no more.
do $$
begin
  if exists (select 1 from pg_roles where rolname = 'needle_app') then
    grant usage on schema public to needle_app;
    grant select, insert, update, delete on all tables in schema public to needle_app;
    grant usage, select on all sequences in schema public to needle_app;
    revoke update, delete on tape_entry from needle_app;
  end if;
end $$;

-- What lies on the shelf. What was used and what jobs hold stands on their tapes.
create table stock_item (
  item text primary key,
  body jsonb not null,
  place_in_table int not null,
  counted_at timestamptz not null default now()
);
create index tape_stock on tape_entry (job_id) where kind = 'stock' or (kind = 'part' and body ? 'stock');

do $$
begin
  if exists (select 1 from pg_roles where rolname = 'needle_app') then
    grant select, insert, update, delete on stock_item to needle_app;
  end if;
end
$$;

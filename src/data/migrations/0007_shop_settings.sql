-- What the shop has settled for itself beside its figures, such as its currency, and how often what all advice follows
-- from was changed.
create table shop_setting (
  name text primary key,
  value text not null
);

do $$
begin
  if exists (select 1 from pg_roles where rolname = 'needle_app') then
    grant select, insert, update, delete on shop_setting to needle_app;
  end if;
end $$;

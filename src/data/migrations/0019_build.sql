-- What goes onto a board model and what it goes into, as far as somebody noted it.
alter table board_model add column build jsonb not null default '{}';

-- What is really the matter with the contacts of a board on the simulated bench, by contact.
alter table hidden_board add column marks jsonb not null default '{}';

-- What the best policy takes on a practice board is worked when it is laid, and kept for its review.
alter table hidden_board add column best jsonb;

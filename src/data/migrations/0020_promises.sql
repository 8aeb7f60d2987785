-- What is owed after a new cell, and what a temperature that never warms proves, are reckoned otherwise: the next steps are computed anew.
update job set belief = null, next_step = null where closed_at is null;

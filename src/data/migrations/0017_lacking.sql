-- What was kept of triage lacks what an instrument would show; it is made anew.
update job set belief = null, next_step = null where closed_at is null;

-- Servers keep for a moment who has asked: they are told which session is changed or gone, and that somebody is.
create function tell_session() returns trigger language plpgsql as $$
begin
  perform pg_notify('sessions', old.sid);
  return null;
end $$;
--> statement-breakpoint
create trigger tell_session after update or delete on session for each row execute function tell_session();
--> statement-breakpoint
create function tell_people() returns trigger language plpgsql as $$
begin
  perform pg_notify('sessions', '');
  return null;
end $$;
--> statement-breakpoint
create trigger tell_people after update or delete on person for each statement execute function tell_people();

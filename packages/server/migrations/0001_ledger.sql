-- Balances follow from moves, in the same transaction. Two lots moved at once by two people are put in order by the row lock of
-- the update; the checks on "balance" refuse whatever would go below nought or promise a bead twice.

create function begin_balance() returns trigger language plpgsql as $$
begin
  insert into balance (lot_id) values (new.id);
  return new;
end $$;
--> statement-breakpoint
create trigger lot_begins_balance after insert on lot for each row execute function begin_balance();
--> statement-breakpoint

create function keep_balance() returns trigger language plpgsql as $$
begin
  update balance set on_hand = on_hand + new.on_hand, reserved = reserved + new.reserved where lot_id = new.lot_id;
  if not found then
    raise exception 'lot % has no balance', new.lot_id;
  end if;
  return new;
end $$;
--> statement-breakpoint
create trigger move_keeps_balance after insert on move for each row execute function keep_balance();
--> statement-breakpoint

create function only_by_moves() returns trigger language plpgsql as $$
begin
  if pg_trigger_depth() < 2 then
    raise exception 'balances are kept from moves and not written by hand' using errcode = 'insufficient_privilege';
  end if;
  return coalesce(new, old);
end $$;
--> statement-breakpoint
create trigger balance_only_by_moves before insert or update or delete on balance for each row execute function only_by_moves();
--> statement-breakpoint

create function only_added_to() returns trigger language plpgsql as $$
begin
  raise exception '% is only added to', tg_table_name using errcode = 'insufficient_privilege';
end $$;
--> statement-breakpoint
create trigger move_only_added_to before update or delete or truncate on move execute function only_added_to();
--> statement-breakpoint
create trigger pattern_version_only_added_to before update or delete or truncate on pattern_version execute function only_added_to();
--> statement-breakpoint
create trigger colourway_version_only_added_to before update or delete or truncate on colourway_version execute function only_added_to();
--> statement-breakpoint
create trigger colourway_choice_only_added_to before update or delete or truncate on colourway_choice execute function only_added_to();
--> statement-breakpoint

-- Open pages hear what has changed once it is committed.
create function tell_changes() returns trigger language plpgsql as $$
begin
  perform pg_notify('changes', tg_argv[0]);
  return null;
end $$;
--> statement-breakpoint
create trigger move_tells after insert on move for each statement execute function tell_changes('stock');
--> statement-breakpoint
create trigger batch_tells after insert or update on batch for each statement execute function tell_changes('batches');
--> statement-breakpoint
create trigger batch_line_tells after insert or update or delete on batch_line for each statement execute function tell_changes('batches');
--> statement-breakpoint
create trigger pattern_tells after insert or update on pattern for each statement execute function tell_changes('patterns');
--> statement-breakpoint
create trigger pattern_version_tells after insert on pattern_version for each statement execute function tell_changes('patterns');
--> statement-breakpoint
create trigger colourway_version_tells after insert on colourway_version for each statement execute function tell_changes('colourways');

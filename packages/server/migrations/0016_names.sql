-- Names that say what they are, and the colourways of one batch only in a table of their own.
alter table action rename to idempotent_request;--> statement-breakpoint
alter table idempotent_request rename constraint action_pkey to idempotent_request_pkey;--> statement-breakpoint
alter table idempotent_request rename constraint action_person_id_person_id_fk to idempotent_request_person_id_person_id_fk;--> statement-breakpoint
alter table move rename column action_key to idempotency_key;--> statement-breakpoint
alter table deed rename to audit_entry;--> statement-breakpoint
alter table audit_entry rename constraint deed_pkey to audit_entry_pkey;--> statement-breakpoint
alter table audit_entry rename constraint deed_person_id_person_id_fk to audit_entry_person_id_person_id_fk;--> statement-breakpoint
alter index deed_person rename to audit_entry_person;--> statement-breakpoint
alter sequence deed_id_seq rename to audit_entry_id_seq;--> statement-breakpoint
alter trigger deed_only_added_to on audit_entry rename to audit_entry_only_added_to;--> statement-breakpoint
drop trigger deed_tells on audit_entry;--> statement-breakpoint
create trigger audit_entry_tells after insert on audit_entry for each statement execute function tell_changes('audit');--> statement-breakpoint
alter table kept_bill rename to cached_bill;--> statement-breakpoint
alter table cached_bill rename constraint kept_bill_pkey to cached_bill_pkey;--> statement-breakpoint
alter table cached_bill add column used_on date default now() not null;--> statement-breakpoint
create table batch_colourway (
	colourway_version_id integer primary key not null,
	batch_id integer not null
);--> statement-breakpoint
insert into batch_colourway (colourway_version_id, batch_id) select id, batch_id from colourway_version where batch_id is not null;--> statement-breakpoint
alter table batch_colourway add constraint batch_colourway_colourway_version_id_colourway_version_id_fk foreign key (colourway_version_id) references public.colourway_version(id);--> statement-breakpoint
alter table batch_colourway add constraint batch_colourway_batch_id_batch_id_fk foreign key (batch_id) references public.batch(id);--> statement-breakpoint
create trigger batch_colourway_only_added_to before update or delete or truncate on batch_colourway execute function only_added_to();--> statement-breakpoint
alter table colourway_version drop column batch_id;--> statement-breakpoint
-- A pack's price tells what must be bought, and was not told to other servers.
create trigger pack_tells after insert or update or delete on pack for each statement execute function tell_changes('stock');

CREATE TABLE "sample" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "sample_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"pattern_id" integer NOT NULL,
	"version" integer,
	"size" text NOT NULL,
	"minutes" integer NOT NULL,
	"thread_mm" real NOT NULL,
	"computed_mm" real NOT NULL,
	"note" text DEFAULT '' NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"made_by" integer NOT NULL,
	CONSTRAINT "sample_minutes" CHECK ("sample"."minutes" > 0),
	CONSTRAINT "sample_thread" CHECK ("sample"."thread_mm" > 0 and "sample"."computed_mm" > 0)
);
--> statement-breakpoint
ALTER TABLE "sample" ADD CONSTRAINT "sample_pattern_id_pattern_id_fk" FOREIGN KEY ("pattern_id") REFERENCES "public"."pattern"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "sample" ADD CONSTRAINT "sample_made_by_person_id_fk" FOREIGN KEY ("made_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
create trigger sample_only_added_to before update or delete or truncate on sample execute function only_added_to();
--> statement-breakpoint
create trigger sample_tells after insert on sample for each statement execute function tell_changes('samples');

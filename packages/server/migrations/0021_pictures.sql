CREATE TABLE "picture" (
	"id" integer PRIMARY KEY GENERATED ALWAYS AS IDENTITY (sequence name "picture_id_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"pattern_id" integer NOT NULL,
	"kind" text DEFAULT 'finished' NOT NULL,
	"step" jsonb,
	"caption" text DEFAULT '' NOT NULL,
	"position" integer NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"crop" jsonb,
	"added_at" timestamp with time zone DEFAULT now() NOT NULL,
	"added_by" integer NOT NULL,
	"removed_at" timestamp with time zone,
	CONSTRAINT "picture_kind" CHECK ("picture"."kind" in ('finished', 'step', 'fault')),
	CONSTRAINT "picture_step" CHECK ("picture"."kind" <> 'step' or "picture"."step" is not null),
	CONSTRAINT "picture_measures" CHECK ("picture"."width" > 0 and "picture"."height" > 0)
);
--> statement-breakpoint
CREATE TABLE "picture_file" (
	"picture_id" integer NOT NULL,
	"size" text NOT NULL,
	"digest" text NOT NULL,
	"bytes" "bytea" NOT NULL,
	CONSTRAINT "picture_file_picture_id_size_pk" PRIMARY KEY("picture_id","size"),
	CONSTRAINT "picture_file_size" CHECK ("picture_file"."size" in ('whole', 'small', 'medium', 'large'))
);
--> statement-breakpoint
ALTER TABLE "pattern_version" ADD COLUMN "pictures" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "picture" ADD CONSTRAINT "picture_pattern_id_pattern_id_fk" FOREIGN KEY ("pattern_id") REFERENCES "public"."pattern"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "picture" ADD CONSTRAINT "picture_added_by_person_id_fk" FOREIGN KEY ("added_by") REFERENCES "public"."person"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "picture_file" ADD CONSTRAINT "picture_file_picture_id_picture_id_fk" FOREIGN KEY ("picture_id") REFERENCES "public"."picture"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "picture_by_pattern" ON "picture" USING btree ("pattern_id");--> statement-breakpoint
ALTER TABLE "picture_file" ALTER COLUMN "bytes" SET STORAGE EXTERNAL;--> statement-breakpoint
create trigger picture_tells after insert or update on picture for each statement execute function tell_changes('pictures');
